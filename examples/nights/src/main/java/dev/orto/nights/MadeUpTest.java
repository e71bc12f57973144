package dev.orto.nights;

import java.util.ArrayList;
import java.util.List;

/** A test of a made-up team, and all that is true of it. Nights are counted from 0; a stretch ends before its second number. */
public final class MadeUpTest {

    /** From a night up to before another. */
    private record Stretch(int from, int until, double size) {
        private boolean has(int night) {
            return from <= night && night < until;
        }
    }

    private static final int FOREVER = Integer.MAX_VALUE;

    private final List<Stretch> flaky = new ArrayList<>();
    private final List<Stretch> broken = new ArrayList<>();
    private final List<Stretch> slower = new ArrayList<>();
    private String className;
    private String method;
    private final double usualMillis;
    private final double growth;

    MadeUpTest(String className, String method, double usualMillis, double growth) {
        this.className = className;
        this.method = method;
        this.usualMillis = usualMillis;
        this.growth = growth;
    }

    /** As runs name it at present. */
    public String key() {
        return className + "." + method + "()";
    }

    String className() {
        return className;
    }

    String method() {
        return method;
    }

    void rename(String otherClass, String otherMethod) {
        className = otherClass;
        method = otherMethod;
    }

    void becomeFlaky(int night, double rate) {
        flaky.add(new Stretch(night, FOREVER, rate));
    }

    void calm(int night) {
        Stretch last = flaky.remove(flaky.size() - 1);
        flaky.add(new Stretch(last.from, night, last.size));
    }

    void breakFor(int night, int nights) {
        broken.add(new Stretch(night, night + nights, 1));
    }

    void slow(int night, double factor) {
        slower.add(new Stretch(night, FOREVER, factor));
    }

    /** How often an attempt of it fails that night for nothing; 0 where it is not flaky. */
    public double rate(int night) {
        for (Stretch one : flaky) if (one.has(night)) return one.size;
        return 0;
    }

    /** Whether it was flaky at any time up to {@code night}. */
    public boolean wasFlaky(int night) {
        return flaky.stream().anyMatch(one -> one.from <= night);
    }

    /** Whether a bug is behind its failing that night. */
    public boolean isBroken(int night) {
        return broken.stream().anyMatch(one -> one.has(night));
    }

    /** Whether it broke that night. */
    public boolean breaks(int night) {
        return isBroken(night) && !isBroken(night - 1);
    }

    /** Whether it became slower at once that night. */
    public boolean becomesSlower(int night) {
        return slower.stream().anyMatch(one -> one.from == night);
    }

    /** Whether it takes a little longer each night. */
    public boolean isGrowing() {
        return growth > 0;
    }

    /** How long it takes that night on a machine as usual, as a factor of what it took on the first. */
    public double factor(int night) {
        double factor = Math.exp(growth * night);
        for (Stretch one : slower) if (one.has(night)) factor *= one.size;
        return factor;
    }

    double millis(int night) {
        return usualMillis * factor(night);
    }
}
