package dev.verbale.sealing;

import dev.verbale.folder.RunFolder;
import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What is different in a run since it was sealed.
 *
 * @param run the folder that the seal is in
 * @param sealedAt as the seal says, which is worth as much as its signature; empty where it does not say
 * @param files how many it is of
 * @param changed files that have other bytes now, by path
 * @param added files that the seal does not know
 * @param removed files that it knows and that are not there
 * @param odd lines of the seal that are none
 * @param signature what is known of who sealed it
 * @since 0.2.0
 */
public record Verification(
        RunFolder run,
        String sealedAt,
        int files,
        List<String> changed,
        List<String> added,
        List<String> removed,
        List<String> odd,
        Signature signature) {

    private static final int LONGEST = 256 << 20;

    public Verification {
        changed = List.copyOf(changed);
        added = List.copyOf(added);
        removed = List.copyOf(removed);
        odd = List.copyOf(odd);
    }

    /** How far it is known who sealed it. */
    public enum Trust {
        /** There is no signature: the seal finds accidents, and nobody's intent. */
        NONE,
        /** The signature is right, and nobody said whose keys may sign. */
        UNKNOWN_SIGNER,
        /** It is by somebody who may sign. */
        GOOD,
        /** It is not of this seal, or not by somebody who may sign. */
        BAD
    }

    /**
     * A signature.
     *
     * @param by who signed it, or which key; why it is bad; empty where there is none
     */
    public record Signature(Trust trust, String by) {}

    /** Whether the run is as it was sealed, and no signature of it is bad. */
    public boolean isGood() {
        return changed.isEmpty()
                && added.isEmpty()
                && removed.isEmpty()
                && odd.isEmpty()
                && signature.trust() != Trust.BAD;
    }

    /**
     * Of {@code run}, or where it has no seal of its own, of each run that it was joined of.
     *
     * @param allowedSigners who may sign, as {@code ssh-keygen(1)} says under ALLOWED SIGNERS; null where any key will do
     * @return none where there is no seal at all
     * @throws IOException where something cannot be read
     */
    public static List<Verification> of(RunFolder run, @Nullable Path allowedSigners) throws IOException {
        if (PlainFile.isThere(run.path().resolve(RunSeal.MANIFEST))) return List.of(one(run, allowedSigners));
        List<Verification> all = new ArrayList<>();
        for (RunFolder shard : run.shards())
            if (PlainFile.isThere(shard.path().resolve(RunSeal.MANIFEST))) all.add(one(shard, allowedSigners));
        return all;
    }

    /** The runs that {@code run} was joined of and that no seal is of; none where it has one of its own. */
    public static List<RunFolder> unsealed(RunFolder run) throws IOException {
        if (PlainFile.isThere(run.path().resolve(RunSeal.MANIFEST))) return List.of();
        return run.shards().stream()
                .filter(shard -> !PlainFile.isThere(shard.path().resolve(RunSeal.MANIFEST)))
                .toList();
    }

    private static Verification one(RunFolder run, @Nullable Path allowedSigners) throws IOException {
        byte[] manifest = PlainFile.bytes(run.path().resolve(RunSeal.MANIFEST), LONGEST);
        Map<String, String> sealed = new HashMap<>();
        List<String> odd = new ArrayList<>();
        String at = "";
        for (String line : new String(manifest, StandardCharsets.UTF_8).split("\n", -1)) {
            if (line.startsWith(RunSeal.FIRST_LINE) && at.isEmpty()) at = line.substring(RunSeal.FIRST_LINE.length());
            Map.Entry<String, String> file = RunSeal.read(line);
            if (file != null && sealed.putIfAbsent(file.getKey(), file.getValue()) == null) continue;
            if (!line.isEmpty() && !line.startsWith("#")) odd.add(line);
        }
        Map<String, String> now = RunSeal.sums(run);
        List<String> changed = new ArrayList<>();
        List<String> added = new ArrayList<>();
        now.forEach((path, sum) -> {
            String before = sealed.get(path);
            if (before == null) added.add(path);
            else if (!before.equals(sum)) changed.add(path);
        });
        List<String> removed = sealed.keySet().stream()
                .filter(path -> !now.containsKey(path))
                .sorted()
                .toList();
        return new Verification(
                run, at, sealed.size(), changed, added, removed, odd, signature(run, manifest, allowedSigners));
    }

    private static Signature signature(RunFolder run, byte[] manifest, @Nullable Path allowedSigners)
            throws IOException {
        Path file = run.path().resolve(RunSeal.SIGNATURE);
        if (!PlainFile.isThere(file))
            return allowedSigners == null
                    ? new Signature(Trust.NONE, "")
                    : new Signature(Trust.BAD, "there is no signature, and one of " + allowedSigners + " is asked for");
        byte[] signature = PlainFile.bytes(file, 1 << 20);
        if (allowedSigners == null) {
            SshKeygen.Answer answer = SshKeygen.verify(
                    manifest, signature, "-Y", "check-novalidate", "-n", RunSeal.NAMESPACE, "-s", "{signature}");
            return answer.isGood()
                    ? new Signature(Trust.UNKNOWN_SIGNER, answer.text().replaceFirst(".*signature with ", ""))
                    : new Signature(Trust.BAD, answer.text());
        }
        String allowed = allowedSigners.toAbsolutePath().toString();
        SshKeygen.Answer found =
                SshKeygen.verify(manifest, signature, "-Y", "find-principals", "-s", "{signature}", "-f", allowed);
        if (!found.isGood())
            return new Signature(Trust.BAD, "its key is none of " + allowedSigners + " (" + found.text() + ")");
        String why = "";
        for (String principal : Set.copyOf(List.of(found.text().split("[;,]\\s*")))) {
            SshKeygen.Answer answer = SshKeygen.verify(
                    manifest,
                    signature,
                    "-Y",
                    "verify",
                    "-f",
                    allowed,
                    "-I",
                    principal,
                    "-n",
                    RunSeal.NAMESPACE,
                    "-s",
                    "{signature}");
            if (answer.isGood()) return new Signature(Trust.GOOD, principal);
            why = answer.text();
        }
        return new Signature(Trust.BAD, why);
    }
}
