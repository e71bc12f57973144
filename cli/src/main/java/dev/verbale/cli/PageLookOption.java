package dev.verbale.cli;

import dev.verbale.report.PageOptions;
import dev.verbale.report.PageSettings;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Option;

/** What makes a page a team's own, and what is left out of it. */
final class PageLookOption {

    private static final Set<String> NAMES =
            Set.of("--title", "--subtitle", "--logo", "--accent", "--leave-out", "--min-level");

    private final Map<PageSettings.Named, String> values = new HashMap<>();

    /** Whether it is one of these options. */
    static boolean has(ArgSpec one) {
        return one instanceof OptionSpec option && NAMES.contains(option.longestName());
    }

    @Option(names = "--title", paramLabel = "TEXT", description = "At the top of each view")
    void title(String text) {
        values.put(PageSettings.TITLE, text);
    }

    @Option(names = "--subtitle", paramLabel = "TEXT", description = "Above the sentence of the summary")
    void subtitle(String text) {
        values.put(PageSettings.SUBTITLE, text);
    }

    @Option(
            names = "--logo",
            paramLabel = "FILE",
            description = {"An image beside the title", "PNG, JPEG, GIF, WebP or SVG, at most 200 kB."})
    void logo(String file) {
        values.put(PageSettings.LOGO, file);
    }

    @Option(
            names = "--accent",
            paramLabel = "COLOUR",
            description = {"The colour of links, such as '#b5532a'", "Made lighter or darker until it can be read."})
    void accent(String colour) {
        values.put(PageSettings.ACCENT, colour);
    }

    @Option(
            names = "--leave-out",
            paramLabel = "PARTS",
            description = {
                "What the page lacks: passed, environment",
                "Between commas: passed, for what happened in tests that passed; environment, for the facts of where the run was made."
            })
    void leaveOut(String parts) {
        values.put(PageSettings.LEAVE_OUT, parts);
    }

    @Option(names = "--min-level", paramLabel = "LEVEL", description = "The least level of log lines, such as INFO")
    void minLevel(String level) {
        values.put(PageSettings.MIN_LEVEL, level);
    }

    /** @throws IllegalArgumentException where one of them cannot be */
    PageOptions options() {
        return PageSettings.options(values::get);
    }
}
