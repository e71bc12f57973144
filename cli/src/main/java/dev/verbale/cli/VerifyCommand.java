package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.results.RunReader;
import dev.verbale.sealing.Verification;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Whether a run is what was sealed. */
@Command(
        name = "verify",
        description =
                "Says what was changed in a run since it was sealed, and who sealed it when: exit code 6 where something was.",
        mixinStandardHelpOptions = true,
        footer = {"  verbale verify tonight.zip --allowed-signers .verbale/allowed_signers"})
final class VerifyCommand implements Callable<Integer> {

    private static final int MAX_NAMED = 20;

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--allowed-signers",
            paramLabel = "FILE",
            description = {
                "Whose keys may sign, as OpenSSH has it",
                "Lines such as 'ci@orto.example ssh-ed25519 AAAA...'. Left out: a signature says that it is whole, and not whose it is."
            })
    private @Nullable Path allowedSigners;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (allowedSigners != null && !Files.isReadable(allowedSigners))
            throw new ParameterException(
                    spec.commandLine(), "--allowed-signers: there is no file that can be read in " + allowedSigners);
        RunFolder folder = RunReader.find(run.path());
        PrintWriter out = spec.commandLine().getOut();
        List<Verification> all = Verification.of(folder, allowedSigners);
        for (Verification one : all) print(one, out);
        List<RunFolder> unsealed = all.isEmpty() ? List.of() : Verification.unsealed(folder);
        if (all.isEmpty()) out.println(folder.name() + " has no seal. It is sealed by: verbale seal");
        for (RunFolder one : unsealed) out.println(one.name() + ", which it was joined of, has no seal.");
        boolean isMissing = all.isEmpty() || !unsealed.isEmpty();
        return !isMissing && all.stream().allMatch(Verification::isGood) ? ExitCodes.DONE : ExitCodes.NOT_AS_SEALED;
    }

    private static void print(Verification one, PrintWriter out) {
        String name = one.run().name();
        out.println(
                one.isGood()
                        ? name + " is as it was sealed: " + one.files() + (one.files() == 1 ? " file" : " files")
                        : name + " is not as it was sealed.");
        list("changed", one.changed(), out);
        list("added", one.added(), out);
        list("removed", one.removed(), out);
        list("no line of a seal", one.odd(), out);
        String at = one.sealedAt().isEmpty() ? "" : " at " + TerminalText.printable(one.sealedAt());
        String by = TerminalText.printable(one.signature().by());
        out.println(
                switch (one.signature().trust()) {
                    case NONE -> "Sealed" + at + " without a signature: whoever changes a run can seal it again.";
                    case UNKNOWN_SIGNER ->
                        "Signed" + at + " with " + by + ". Whose that is, --allowed-signers would say.";
                    case GOOD -> "Signed" + at + " by " + by + ".";
                    case BAD -> "The signature is bad: " + by;
                });
    }

    private static void list(String what, List<String> files, PrintWriter out) {
        for (String file : files.subList(0, Math.min(MAX_NAMED, files.size())))
            out.println("  " + what + ": " + TerminalText.printable(file));
        if (files.size() > MAX_NAMED) out.println("  " + what + ": and " + (files.size() - MAX_NAMED) + " more");
    }
}
