package dev.verbale.cli;

import dev.verbale.sending.HubProject;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** How long a hub keeps the runs of a project. */
@Command(
        name = "keep",
        description = {
            "Says how long a hub keeps runs, or sets it anew.",
            "And which go within a week. To set it the token in VERBALE_HUB_TOKEN may do everything. What is remembered of a run stays when it goes."
        },
        mixinStandardHelpOptions = true,
        footer = {"  verbale hub keep --project orto --keep-days 30 --keep-failing-days 90"})
final class HubKeepCommand implements Callable<Integer> {

    @Mixin
    private final HubArguments hub = new HubArguments();

    @Option(names = "--keep-days", paramLabel = "N", description = "How old a run may be")
    private @Nullable Integer days;

    @Option(
            names = "--keep-failing-days",
            paramLabel = "N",
            description = {"And one that somebody has to look at", "Left out: no longer."})
    private @Nullable Integer failingDays;

    @Option(names = "--max-size", paramLabel = "SIZE", description = "How large all may be, such as 50GB")
    private @Nullable String maxSize;

    @Option(names = "--all", description = "All of them stay")
    private boolean all;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Map<String, String> rule = new LinkedHashMap<>();
        if (days != null) rule.put("days", days.toString());
        if (failingDays != null) rule.put("failing-days", failingDays.toString());
        if (maxSize != null)
            rule.put(
                    "max-bytes",
                    SizeText.bytes(maxSize)
                            .orElseThrow(() -> wrong("--max-size takes a size such as 500MB or 50GB, not " + maxSize))
                            .toString());
        if (all && !rule.isEmpty()) throw wrong("--all lets all runs stay: say nothing beside it");
        HubProject there = hub.administered(spec, false);
        return HubArguments.ask(
                spec, "nothing was asked or set", () -> all || !rule.isEmpty() ? there.keep(rule) : there.keeping());
    }

    private ParameterException wrong(String what) {
        return new ParameterException(spec.commandLine(), what);
    }
}
