package dev.verbale.hostile;

import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** What goes the whole way to a server or a browser and back, twice: by night all of it, by day every second. */
public final class EverySecond {

    private EverySecond() {}

    public static <T> Stream<T> byDay(List<T> all) {
        int step = Boolean.getBoolean("verbale.night") ? 1 : 2;
        return IntStream.range(0, all.size()).filter(i -> i % step == 0).mapToObj(all::get);
    }
}
