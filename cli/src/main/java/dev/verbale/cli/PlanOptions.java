package dev.verbale.cli;

import java.time.Duration;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;
import picocli.CommandLine.TypeConversionException;

/** Tests that are chosen by what is remembered of them, and not by a run. */
final class PlanOptions {

    private static final int MAX_MACHINES = 1_000;

    @Option(
            names = "--within",
            paramLabel = "TIME",
            converter = TimeConverter.class,
            description = {
                "Of all tests, or those changed since, what fits: 20m",
                "Those first that are likeliest to fail for what they take, by how they went and how long they have not run."
            })
    private @Nullable Duration within;

    @Option(
            names = "--shards",
            paramLabel = "N",
            description = {
                "All tests, or those changed since, on N machines",
                "Prints a command for each, so that they end together by the times that are remembered. Asks no run; the folder's tests have to be compiled."
            })
    private @Nullable Integer shards;

    @Option(names = "--shard", paramLabel = "K", description = "Of these, the command of machine K alone, from 1")
    private @Nullable Integer shard;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    static final class TimeConverter implements ITypeConverter<Duration> {

        private static final Pattern TIME = Pattern.compile("([1-9]\\d{0,5})(s|m|h)");

        @Override
        public Duration convert(String text) {
            Matcher time = TIME.matcher(text.toLowerCase(Locale.ROOT));
            if (!time.matches()) throw new TypeConversionException("'" + text + "' is no time such as 90s, 20m or 1h");
            return Duration.parse("PT" + time.group(1) + time.group(2).toUpperCase(Locale.ROOT));
        }
    }

    boolean isAsked() {
        return shards != null || within != null;
    }

    /** @param isStarted whether one command is to be started, and not all printed */
    void check(boolean isStarted) {
        if (shards == null) {
            if (shard != null) throw wrong("--shard is of use only beside --shards");
            return;
        }
        if (shards < 1 || shards > MAX_MACHINES) throw wrong("--shards takes a number from 1 to " + MAX_MACHINES);
        if (shard != null && (shard < 1 || shard > shards)) throw wrong("--shard takes a number from 1 to " + shards);
        if (isStarted && shard == null) throw wrong("--run beside --shards starts one of them: name it with --shard");
    }

    private ParameterException wrong(String what) {
        return new ParameterException(spec.commandLine(), what);
    }

    int machines() {
        return shards == null ? 1 : shards;
    }

    boolean isDivided() {
        return shards != null;
    }

    /** Whether what machine {@code number} runs is asked for; the first is 1. */
    boolean isWanted(int number) {
        return shard == null || shard == number;
    }

    /** How long all machines together may take; empty where they run everything. */
    Optional<Duration> budget() {
        return Optional.ofNullable(within).map(each -> each.multipliedBy(machines()));
    }

    /** What is chosen, for the run to say; empty where it is everything. */
    String words(@Nullable String changedSince) {
        String changed = changedSince == null ? "" : "changed since " + changedSince;
        if (within == null) return changed;
        return (changed.isEmpty() ? "" : changed + ", ") + "within "
                + within.toString().substring(2).toLowerCase(Locale.ROOT);
    }
}
