package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.results.RunReader;
import dev.verbale.sealing.RunSeal;
import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** What a run's files were. */
@Command(
        name = "seal",
        description =
                "Writes what the files of a run are, and signs it: 'verbale verify' finds what was changed since.",
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale seal --key ~/.ssh/id_ed25519",
            "  verbale seal --key ci-key.pub   # a key that an agent holds",
            "  sha256sum -c seal.sha256   # in the run's folder, without Verbale"
        })
final class SealCommand implements Callable<Integer> {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--key",
            paramLabel = "FILE",
            description = {
                "An OpenSSH key to sign with; left out, unsigned",
                "Such as one of Ed25519, or the public half of one that an agent holds. Left out: nothing is signed, and whoever changes the run can seal it again."
            })
    private @Nullable Path key;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        RunFolder folder = RunReader.find(run.path());
        try {
            int files = RunSeal.seal(folder, key);
            spec.commandLine()
                    .getOut()
                    .println("Sealed: " + files + (files == 1 ? " file" : " files") + " of " + folder.name()
                            + (key == null ? ", not signed" : ", signed with " + key));
        } catch (IOException | RuntimeException failed) {
            throw new FailureMessages.NotWritten(
                    folder.path() + " was not sealed",
                    failed instanceof IOException io ? io : new IOException(failed.getMessage(), failed));
        }
        return ExitCodes.DONE;
    }
}
