package dev.orto.garden;

import java.util.ArrayList;
import java.util.List;

/** The heap, with a probe in it. */
public final class Compost {

    /** What the probe showed on one day of the season. */
    public record Reading(int day, double celsius) {}

    /** Twelve of them are twelve seconds: nobody waits that long, and a server that is closed meanwhile waits for one. */
    private static final long SLOW_PROBE_MILLIS = 1000;

    private final List<Reading> readings = new ArrayList<>();
    private final boolean slow;

    Compost(boolean slow) {
        this.slow = slow;
    }

    public synchronized void add(Reading reading) {
        if (reading.celsius() < -20 || reading.celsius() > 90)
            throw GardenException.invalid("No compost heap has " + reading.celsius() + " °C");
        readings.add(reading);
    }

    public List<Reading> history() {
        List<Reading> history = latestFirst();
        if (slow) history.forEach(Compost::waitForProbe);
        return history;
    }

    /** Warm enough to kill weeds: three readings in a row above 55 °C. */
    public synchronized boolean isHot() {
        int inRow = 0;
        for (Reading reading : readings) {
            inRow = reading.celsius() > 55 ? inRow + 1 : 0;
            if (inRow == 3) return true;
        }
        return false;
    }

    private synchronized List<Reading> latestFirst() {
        List<Reading> history = new ArrayList<>(readings);
        history.sort((a, b) -> Integer.compare(b.day(), a.day()));
        return history;
    }

    private static void waitForProbe(Reading ignored) {
        try {
            Thread.sleep(SLOW_PROBE_MILLIS);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }
}
