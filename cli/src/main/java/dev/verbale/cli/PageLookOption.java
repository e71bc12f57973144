package dev.verbale.cli;

import dev.verbale.report.PageOptions;
import dev.verbale.report.PageSettings;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Option;

/** What makes a page a team's own, and what is left out of it. Fields and not methods: these have no order that stays from JVM to JVM. */
final class PageLookOption {

    private static final Set<String> NAMES =
            Set.of("--title", "--subtitle", "--logo", "--accent", "--leave-out", "--min-level");

    /** Whether it is one of these options. */
    static boolean has(ArgSpec one) {
        return one instanceof OptionSpec option && NAMES.contains(option.longestName());
    }

    @Option(names = "--title", paramLabel = "TEXT", description = "At the top of each view")
    private @Nullable String title;

    @Option(names = "--subtitle", paramLabel = "TEXT", description = "Above the sentence of the summary")
    private @Nullable String subtitle;

    @Option(
            names = "--logo",
            paramLabel = "FILE",
            description = {"An image beside the title", "PNG, JPEG, GIF, WebP or SVG, at most 200 kB."})
    private @Nullable String logo;

    @Option(
            names = "--accent",
            paramLabel = "COLOUR",
            description = {"The colour of links, such as '#b5532a'", "Made lighter or darker until it can be read."})
    private @Nullable String accent;

    @Option(
            names = "--leave-out",
            paramLabel = "PARTS",
            description = {
                "What the page lacks: passed, environment",
                "Between commas: passed, for what happened in tests that passed; environment, for the facts of where the run was made."
            })
    private @Nullable String leaveOut;

    @Option(names = "--min-level", paramLabel = "LEVEL", description = "The least level of log lines, such as INFO")
    private @Nullable String minLevel;

    /** @throws IllegalArgumentException where one of them cannot be */
    PageOptions options() {
        Map<PageSettings.Named, String> values = new HashMap<>();
        add(PageSettings.TITLE, title, values);
        add(PageSettings.SUBTITLE, subtitle, values);
        add(PageSettings.LOGO, logo, values);
        add(PageSettings.ACCENT, accent, values);
        add(PageSettings.LEAVE_OUT, leaveOut, values);
        add(PageSettings.MIN_LEVEL, minLevel, values);
        return PageSettings.options(values::get);
    }

    private static void add(
            PageSettings.Named setting, @Nullable String value, Map<PageSettings.Named, String> values) {
        if (value != null) values.put(setting, value);
    }
}
