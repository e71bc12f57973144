package dev.orto.garden;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Who waters on which day. */
public final class Rota {

    public static final List<String> DAYS =
            List.of("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday");

    private final Map<String, String> neighbourByDay = new LinkedHashMap<>();
    private final boolean halfDone;

    Rota(List<String> neighbours, boolean halfDone) {
        this.halfDone = halfDone;
        for (int i = 0; i < DAYS.size(); i++) neighbourByDay.put(DAYS.get(i), neighbours.get(i % neighbours.size()));
    }

    public synchronized Map<String, String> days() {
        return new LinkedHashMap<>(neighbourByDay);
    }

    public synchronized void swap(String first, String second) {
        String one = neighbour(first);
        String other = neighbour(second);
        if (first.equals(second)) throw GardenException.invalid("A day cannot be swapped with itself: " + first);
        neighbourByDay.put(first, other);
        if (!halfDone) neighbourByDay.put(second, one);
    }

    private String neighbour(String day) {
        String neighbour = neighbourByDay.get(day);
        if (neighbour == null) throw GardenException.unknown("No such day: " + day);
        return neighbour;
    }
}
