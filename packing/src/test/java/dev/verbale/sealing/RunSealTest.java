package dev.verbale.sealing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.folder.RunFiles;
import dev.verbale.folder.RunFolder;
import dev.verbale.packing.PackOptions;
import dev.verbale.packing.PackedRun;
import dev.verbale.packing.RecordedRun;
import dev.verbale.packing.RunPacker;
import dev.verbale.results.RunReader;
import dev.verbale.results.join.RunJoiner;
import dev.verbale.sealing.Verification.Trust;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Seals, beside the tools that everybody has: {@code sha256sum} and {@code ssh-keygen}. */
class RunSealTest {

    @TempDir
    Path root;

    private RunFolder run;

    @BeforeEach
    void record() throws Exception {
        run = RecordedRun.whole(root.resolve("runs"), "night");
    }

    @Test
    void whoever_gets_a_run_can_verify_it_with_what_they_have() throws Exception {
        Path key = key("ed25519");
        RunSeal.seal(run, key);
        Path signers = signers(key, "ci@orto.example");

        assertThat(shell(run.path(), "sha256sum --strict --quiet -c seal.sha256"))
                .isZero();
        assertThat(shell(
                        run.path(),
                        "ssh-keygen -Y verify -f " + signers
                                + " -I ci@orto.example -n verbale-run -s seal.sha256.sig < seal.sha256"))
                .isZero();
        assertThat(verify(signers).signature()).isEqualTo(new Verification.Signature(Trust.GOOD, "ci@orto.example"));
        assertThat(verify(null).signature().trust()).isEqualTo(Trust.UNKNOWN_SIGNER);
        assertThat(verify(null).signature().by()).contains("SHA256:");
        assertThat(verify(signers).sealedAt()).startsWith("20");
    }

    @Test
    void a_key_that_an_agent_holds_signs_by_its_public_half() throws Exception {
        Path key = key("ed25519");
        Path signers = signers(key, "ci@orto.example");
        Path script = Files.writeString(
                root.resolve("seal.sh"),
                String.join(
                        "\n",
                        "set -e",
                        "eval $(ssh-agent) >/dev/null",
                        "trap 'kill $SSH_AGENT_PID' EXIT",
                        "ssh-add -q " + key,
                        "rm " + key,
                        "exec 3>&1",
                        ProcessHandle.current().info().command().orElse("java") + " -cp '"
                                + System.getProperty("java.class.path") + "' '" + Sealing.class.getName() + "' "
                                + run.path() + " " + key + ".pub"));

        assertThat(shell(root, "bash " + script)).isZero();
        assertThat(verify(signers).signature().trust()).isEqualTo(Trust.GOOD);
    }

    /** In a JVM that has an agent. */
    public static final class Sealing {
        public static void main(String[] arguments) throws Exception {
            RunSeal.seal(new RunFolder(Path.of(arguments[0])), Path.of(arguments[1]));
        }
    }

    @Test
    void every_kind_of_change_of_every_file_is_found() throws Exception {
        Files.writeString(run.path().resolve("tests/a name; with 'odd' things"), "x");
        RunSeal.seal(run, key("ed25519"));
        assertThat(verify(null).isGood()).isTrue();
        List<Path> files = RunFiles.of(run, Set.of());
        assertThat(files).hasSizeGreaterThan(10);
        for (Path file : files) {
            byte[] before = Files.readAllBytes(file);
            for (int at : new int[] {0, before.length / 2, Math.max(0, before.length - 2)
            }) { // behind that a signature ends its line
                byte[] after = before.clone();
                after[at] ^= 1;
                Files.write(file, after);
                assertThat(verify(null).isGood()).as(file + " at " + at).isFalse();
            }
            Files.write(file, new byte[0]);
            assertThat(verify(null).isGood()).as(file + " emptied").isFalse();
            Path moved = file.resolveSibling("moved");
            Files.write(moved, before);
            Files.delete(file);
            boolean isSeal = RunSeal.FILES.contains(file.getFileName().toString());
            if (!isSeal) {
                assertThat(verify(null).removed()).as(file + " renamed").contains(run.nameInJournal(file));
                assertThat(verify(null).added()).contains(run.nameInJournal(moved));
            }
            Files.delete(moved);
            Files.write(file, before);
            assertThat(verify(null).isGood()).isTrue();
        }
    }

    @Test
    void a_line_of_the_seal_that_is_changed_added_or_gone_is_found() throws Exception {
        Path signers = signers(key("ed25519"), "ci@orto.example");
        RunSeal.seal(run, root.resolve("key-ed25519"));
        Path manifest = run.path().resolve(RunSeal.MANIFEST);
        List<String> lines = Files.readAllLines(manifest);
        for (int i = 0; i < lines.size(); i++) {
            List<String> less = new ArrayList<>(lines);
            String line = less.remove(i);
            Files.write(manifest, less);
            assertThat(verify(signers).isGood()).as("without " + line).isFalse();
            less.add(i, line.replace('0', '1') + " ");
            Files.write(manifest, less);
            assertThat(verify(signers).isGood()).as("changed " + line).isFalse();
        }
    }

    @Test
    void a_seal_by_somebody_else_or_of_another_run_is_bad() throws Exception {
        Path signers = signers(key("ed25519"), "ci@orto.example");
        RunSeal.seal(run, key("rsa"));
        assertThat(verify(signers).signature().trust()).isEqualTo(Trust.BAD);
        assertThat(verify(signers).isGood()).isFalse();
        assertThat(verify(null).isGood()).isTrue();

        RunSeal.seal(run, null);
        assertThat(verify(null).signature().trust()).isEqualTo(Trust.NONE);
        assertThat(verify(signers).isGood())
                .as("unsigned, and signers are asked for")
                .isFalse();

        RunFolder other = RecordedRun.whole(root.resolve("runs"), "other");
        RunSeal.seal(other, root.resolve("key-ed25519"));
        Files.copy(other.path().resolve(RunSeal.SIGNATURE), run.path().resolve(RunSeal.SIGNATURE));
        assertThat(verify(signers).isGood()).isFalse();
        assertThat(verify(null).isGood()).isFalse();

        Files.writeString(run.path().resolve(RunSeal.SIGNATURE), "-----BEGIN SSH SIGNATURE-----\nnone\n");
        assertThat(verify(null).isGood()).isFalse();
    }

    @Test
    void a_signature_for_something_else_is_none_for_a_run() throws Exception {
        Path key = key("ed25519");
        RunSeal.seal(run, null);
        assertThat(shell(run.path(), "ssh-keygen -Y sign -n file -f " + key + " seal.sha256"))
                .isZero();

        assertThat(verify(signers(key, "ci@orto.example")).isGood()).isFalse();
        assertThat(verify(null).isGood()).isFalse();
    }

    @Test
    void names_that_sums_have_to_escape_are_sealed_as_sha256sum_does() throws Exception {
        Files.writeString(run.path().resolve("tests/back\\slash"), "x");
        Files.writeString(run.path().resolve("tests/new\nline"), "x");
        Files.writeString(run.path().resolve("tests/back\\nslash"), "y");
        RunSeal.seal(run, null);

        assertThat(shell(run.path(), "sha256sum --strict --quiet -c seal.sha256"))
                .isZero();
        assertThat(verify(null).isGood()).isTrue();
    }

    @Test
    void a_pack_and_a_joined_run_keep_the_seal() throws Exception {
        Path signers = signers(key("ed25519"), "ci@orto.example");
        RunSeal.seal(run, root.resolve("key-ed25519"));
        Path zip = root.resolve("night.zip");
        RunPacker.pack(run, zip, PackOptions.WHOLE);
        try (PackedRun packed = PackedRun.open(zip)) {
            assertThat(Verification.of(RunReader.find(packed.folder()), signers))
                    .singleElement()
                    .matches(Verification::isGood);
        }
        Path joined = root.resolve("joined");
        RunJoiner.join(List.of(run.path()), joined);
        assertThat(Verification.of(new RunFolder(joined), signers))
                .singleElement()
                .matches(Verification::isGood);

        RunPacker.pack(run, zip, PackOptions.WHOLE.withFailuresOnly(true));
        try (PackedRun packed = PackedRun.open(zip)) {
            assertThat(Verification.of(RunReader.find(packed.folder()), signers))
                    .as("a seal is of the whole")
                    .isEmpty();
        }
    }

    @Test
    void a_run_that_was_joined_of_sealed_ones_and_another_is_not_taken_for_sealed() throws Exception {
        RunSeal.seal(run, null);
        RunFolder other = RecordedRun.whole(root.resolve("runs"), "other");
        Path joined = root.resolve("joined");
        RunJoiner.join(List.of(run.path(), other.path()), joined);

        assertThat(Verification.of(new RunFolder(joined), null)).hasSize(1);
        assertThat(Verification.unsealed(new RunFolder(joined)))
                .singleElement()
                .matches(one -> one.name().startsWith("other"));
        assertThat(Verification.unsealed(run)).isEmpty();
    }

    @Test
    void what_cannot_be_signed_is_not_sealed_and_says_why() throws Exception {
        assertThatThrownBy(() -> RunSeal.seal(run, root.resolve("none")))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("there is no key that can be read");
        Path odd = Files.writeString(root.resolve("odd"), "no key");
        assertThatThrownBy(() -> RunSeal.seal(run, odd)).hasMessageContaining("it was not signed with");
        assertThat(run.path().resolve(RunSeal.MANIFEST)).doesNotExist();
    }

    private Verification verify(Path signers) throws IOException {
        return Verification.of(run, signers).get(0);
    }

    private Path key(String type) throws Exception {
        Path key = root.resolve("key-" + type);
        if (!Files.exists(key))
            assertThat(shell(root, "ssh-keygen -q -t " + type + " -N '' -C test -f " + key))
                    .isZero();
        return key;
    }

    private Path signers(Path key, String who) throws Exception {
        return Files.writeString(
                root.resolve("signers"),
                who + " namespaces=\"" + RunSeal.NAMESPACE + "\" " + Files.readString(Path.of(key + ".pub")));
    }

    private int shell(Path folder, String command) throws Exception {
        File output = root.resolve("output").toFile();
        Process process = new ProcessBuilder("bash", "-c", command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(output)
                .start();
        int code = process.waitFor();
        if (code != 0) System.out.println(Files.readString(output.toPath()));
        return code;
    }
}
