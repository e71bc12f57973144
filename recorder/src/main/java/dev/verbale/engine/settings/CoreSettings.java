package dev.verbale.engine.settings;

import dev.verbale.spi.Setting;
import java.util.List;

/** The recorder's own settings, in the order in which they are documented. Adapters bring theirs. */
public final class CoreSettings {

    public static final Setting ENABLED = Setting.onOff("verbale.enabled", true, "`false` records nothing");
    public static final Setting ROOT = Setting.text(
            "verbale.root",
            "`target/verbale`",
            "the folder that run folders are made in; in a Maven build, below the folder that holds all modules");
    public static final Setting RUN = Setting.text(
            "verbale.run",
            "a new run",
            "the name of the run folder; JVMs that are given the same name write to the same run");
    public static final Setting TAGS = Setting.text(
            "verbale.tags",
            "none",
            "words, with commas between, by which the run is found, such as `nightly, staging`");
    public static final Setting MODULE = Setting.text(
            "verbale.module",
            "the path from the build's folder",
            "which module of a build is tested: the same class in two modules is two tests; `.` is none");
    public static final Setting SUMMARY_LINE =
            Setting.onOff("verbale.summary-line", true, "`false` leaves out the line at the end of the run");
    public static final Setting SECRET_NAMES = Setting.text(
            "verbale.secret.names",
            "none",
            "words, with commas between, that names of secret values end in, besides those that are known");
    public static final Setting SECRET_PATTERNS = Setting.text(
            "verbale.secret.patterns",
            "none",
            "regular expressions, with commas between: group 1 of what matches is masked");
    public static final Setting ADOPT_ORPHANS = Setting.onOff(
            "verbale.log.adopt-orphans",
            true,
            "a line from a thread that belongs to no test is given to the test that runs, where there is just one");
    public static final Setting LOG_LINES = Setting.number(
            "verbale.log.lines",
            10_000,
            "the most lines of loggers in one test; what is more is counted, and the test says so");
    public static final Setting LOG_CHARACTERS =
            Setting.number("verbale.log.characters", 20_000, "the most characters of one line of a logger");
    public static final Setting CONSOLE = Setting.onOff(
            "verbale.console",
            false,
            "`true` keeps what tests print, with the test that printed it; it is printed all the same");
    public static final Setting EXCHANGE_BYTES = Setting.number(
            "verbale.exchange.bytes",
            1_000_000,
            "the most bytes of each body of an exchange that are kept; `0` keeps none");
    public static final Setting TRACE_SEND = Setting.onOff(
            "verbale.trace.send",
            false,
            "`true` sends the header `traceparent` with each request, so that its traces can be found");
    public static final Setting TRACE_ADDRESS = Setting.text(
            "verbale.trace.address",
            "none",
            "where a trace is looked at, such as `https://traces.example/$0`; `$0` is its id");

    /** Followed by a name of the suite's own choice. */
    public static final String LINK = "verbale.link.";

    /** Followed by a name of the suite's own choice. */
    public static final String FACT = "verbale.fact.";

    public static final List<Setting> ALL = List.of(
            ENABLED,
            ROOT,
            RUN,
            TAGS,
            MODULE,
            SUMMARY_LINE,
            SECRET_NAMES,
            SECRET_PATTERNS,
            ADOPT_ORPHANS,
            LOG_LINES,
            LOG_CHARACTERS,
            CONSOLE,
            EXCHANGE_BYTES,
            TRACE_SEND,
            TRACE_ADDRESS);

    /** What {@link #LINK} and {@link #FACT} mean, as rows of documentation. */
    public static final List<Setting> NAMED = List.of(
            Setting.text(
                    LINK + "NAME",
                    "none",
                    "a pattern and an address: `GARDEN-\\d+ https://tracker.example/$0` turns a link's name into its address"),
            Setting.text(FACT + "NAME", "none", "a fact of the run, such as `verbale.fact.build=4711`"));

    private CoreSettings() {}
}
