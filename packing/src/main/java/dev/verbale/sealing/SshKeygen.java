package dev.verbale.sealing;

import dev.verbale.folder.FolderTree;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * Signing and verifying by the program {@code ssh-keygen} of OpenSSH 8.2 or newer: it knows all kinds of keys, agents, and who may sign what,
 * and whoever is handed a run has it.
 *
 * @see <a href="https://man.openbsd.org/ssh-keygen#Y">ssh-keygen -Y</a>
 */
final class SshKeygen {

    private static final String PROGRAM = "ssh-keygen";
    private static final long MINUTES = 5; // somebody may have to type a passphrase, or touch a key

    private SshKeygen() {}

    /** What it printed, and how it ended. */
    record Answer(int code, String text) {
        boolean isGood() {
            return code == 0;
        }
    }

    /** A signature of {@code content}, in the armour of OpenSSH. */
    static byte[] sign(byte[] content, Path key) throws IOException {
        if (!Files.isReadable(key)) throw new IOException("there is no key that can be read in " + key);
        Path work = Files.createTempDirectory("verbale-seal");
        try {
            Path file = Files.write(work.resolve("content"), content);
            Answer answer = ask(
                    new byte[0],
                    "-Y",
                    "sign",
                    "-n",
                    RunSeal.NAMESPACE,
                    "-f",
                    key.toAbsolutePath().toString(),
                    file.toString());
            Path signature = work.resolve("content.sig");
            if (!answer.isGood() || !Files.exists(signature))
                throw new IOException("it was not signed with " + key + ": " + answer.text());
            return Files.readAllBytes(signature);
        } finally {
            FolderTree.delete(work);
        }
    }

    /** @param arguments where {@code {signature}} stands for a file with {@code signature} */
    static Answer verify(byte[] content, byte[] signature, String... arguments) throws IOException {
        Path work = Files.createTempDirectory("verbale-seal");
        try {
            Path file = Files.write(work.resolve("signature"), signature);
            List<String> all = new ArrayList<>();
            for (String argument : arguments) all.add(argument.replace("{signature}", file.toString()));
            return ask(content, all.toArray(String[]::new));
        } finally {
            FolderTree.delete(work);
        }
    }

    private static Answer ask(byte[] input, String... arguments) throws IOException {
        List<String> command = new ArrayList<>(List.of(PROGRAM));
        command.addAll(List.of(arguments));
        Path output = Files.createTempFile("verbale-seal", ".txt");
        try {
            Process process;
            try {
                process = new ProcessBuilder(command)
                        .redirectErrorStream(true)
                        .redirectOutput(output.toFile())
                        .start();
            } catch (IOException missing) {
                throw new IOException(
                        "seals are signed and verified by 'ssh-keygen', which is not on this machine's path", missing);
            }
            try (OutputStream in = process.getOutputStream()) {
                in.write(input);
            } catch (IOException closed) {
                // it needed no input, or its exit says what is wrong
            }
            if (!process.waitFor(MINUTES, TimeUnit.MINUTES)) {
                process.destroyForcibly();
                throw new IOException("ssh-keygen did not end within " + MINUTES + " minutes");
            }
            String text = Files.readString(output, StandardCharsets.ISO_8859_1)
                    .strip()
                    .replaceAll("\\s*\\R\\s*", "; ")
                    .replaceAll("\\p{Cntrl}", "?");
            return new Answer(process.exitValue(), text);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted while ssh-keygen was at work", hurried);
        } finally {
            Files.deleteIfExists(output);
        }
    }
}
