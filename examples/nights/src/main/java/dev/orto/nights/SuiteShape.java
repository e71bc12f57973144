package dev.orto.nights;

/**
 * What a team's suite is like, and what happens to it. Shares are of its tests, chances are of a night.
 *
 * @param tests how many it begins with
 * @param spread by how much a test's times vary: the standard deviation of their logarithms
 * @param retries how often a failing test is tried again
 * @param flaky the share of tests that are flaky when it begins; as many become so in a year, and as many calm
 * @param leastRate how often the calmest of them fails
 * @param largestRate how often the wildest fails; between both the logarithms are even
 * @param bugs how many bugs come a night, at the mean
 * @param testsABug how many tests of one class a bug breaks at the most
 * @param mended the chance that a bug is mended by the next night
 * @param slower how many tests become slower at once a night, at the mean, by a factor of 1.3 to 2.8
 * @param growing the share of tests that grow slower by little each night, to twice their time in a year
 * @param outage the chance of a night in which what many tests need is away
 * @param slowNight the chance of a night whose machine is slow, by a factor of 1.3 to 2
 * @param wrongClock the chance of a night whose clock is up to two days off
 * @param renamed the chance of a night before which a class or a method was renamed
 * @param added how many tests are added a night, at the mean
 * @param branchEvery after so many nights of the main branch comes a run of another one; 0 for never
 */
public record SuiteShape(
        int tests,
        double spread,
        int retries,
        double flaky,
        double leastRate,
        double largestRate,
        double bugs,
        int testsABug,
        double mended,
        double slower,
        double growing,
        double outage,
        double slowNight,
        double wrongClock,
        double renamed,
        double added,
        int branchEvery) {

    /** A suite as large ones are: a test in a hundred is flaky, a bug comes each other night, and each month has its outage. */
    public static SuiteShape usual(int tests) {
        return new SuiteShape(
                tests,
                0.2,
                0,
                0.01,
                0.01,
                0.5,
                0.5,
                3,
                0.4,
                0.2,
                0.002,
                1.0 / 30,
                1.0 / 20,
                1.0 / 60,
                1.0 / 20,
                tests / 5_000.0,
                6);
    }

    /** Like this, and a failing test is tried again so often. */
    public SuiteShape withRetries(int some) {
        return new SuiteShape(
                tests,
                spread,
                some,
                flaky,
                leastRate,
                largestRate,
                bugs,
                testsABug,
                mended,
                slower,
                growing,
                outage,
                slowNight,
                wrongClock,
                renamed,
                added,
                branchEvery);
    }
}
