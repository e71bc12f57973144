package dev.verbale.hostile;

import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** What goes the whole way to a server or a browser and back, twice: by night all of it, by day some of it. */
public final class ByDay {

    private ByDay() {}

    public static <T> Stream<T> everySecond(List<T> all) {
        return every(2, all);
    }

    public static <T> Stream<T> everyThird(List<T> all) {
        return every(3, all);
    }

    /** Those with kin of their own in other tests of the day. */
    public static <T> Stream<T> everyFourth(List<T> all) {
        return every(4, all);
    }

    private static <T> Stream<T> every(int step, List<T> all) {
        boolean isNight = Boolean.getBoolean("verbale.night");
        return IntStream.range(0, all.size())
                .filter(i -> isNight || i % step == 0)
                .mapToObj(all::get);
    }
}
