package dev.verbale.sending;

import dev.verbale.folder.RunFiles;
import dev.verbale.folder.RunFolder;
import dev.verbale.folder.ShardName;
import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.Callable;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** One folder of a run on its way; what several machines send under one name of run are its parts. */
final class SentPart {

    /** Frames of videos that are not over, and what is a part of its own. */
    private static final Set<String> LEFT_OUT = Set.of("spools", "shards");

    /** What no other system could keep, or would take for another file. */
    private static final Pattern ODD = Pattern.compile(".*[\\\\\\p{Cntrl}].*", Pattern.DOTALL);

    private final RunFolder folder;
    private final Map<String, SentFile> files = new TreeMap<>();
    private final Set<String> odd = new TreeSet<>();
    private @Nullable String name;

    SentPart(RunFolder folder) {
        this.folder = folder;
    }

    /** Whether there is something by which it can be told from others. */
    boolean isNamed() throws IOException {
        if (name == null && folder.exists() && hasLine())
            name = SendOptions.named("part of a run", ShardName.of(folder));
        return name != null;
    }

    private boolean hasLine() throws IOException {
        for (Path journal : folder.journalFiles())
            if (PlainFile.isThere(journal))
                try (var lines = Files.newBufferedReader(journal, java.nio.charset.StandardCharsets.ISO_8859_1)) {
                    for (int c = lines.read(); c >= 0; c = lines.read()) if (c == '\n') return true;
                    return false;
                }
        return false;
    }

    /** Where the hub has it. */
    private URI at(HubConnection hub, String project, String run, String end) {
        return hub.address("api", "v1", "projects", project, "runs", run, "parts", String.valueOf(name), end);
    }

    /**
     * Sends what is new in it.
     *
     * @param all whether files are looked for that are no journals
     * @param atOnce so many of them are sent side by side
     */
    long send(HubConnection hub, String project, String run, boolean all, int atOnce)
            throws IOException, InterruptedException {
        if (!isNamed()) return 0;
        URI creation = at(hub, project, run, "files");
        long bytes = 0;
        if (all) {
            List<Callable<Long>> sending = new ArrayList<>();
            for (Path path : files()) {
                SentFile file = file(path);
                if (file.isNew()) sending.add(() -> file.send(hub, creation));
            }
            bytes = Together.sum(atOnce, sending);
        }
        for (Path journal : folder.journalFiles())
            if (PlainFile.isThere(journal)) bytes += file(journal).send(hub, creation);
        return bytes;
    }

    private SentFile file(Path file) {
        return files.computeIfAbsent(folder.nameInJournal(file), known -> new SentFile(known, file));
    }

    private List<Path> files() throws IOException {
        List<Path> found = new ArrayList<>();
        for (Path one : RunFiles.of(folder, LEFT_OUT))
            if (isOdd(folder.path().relativize(one)))
                odd.add(folder.path().relativize(one).toString().replaceAll("\\p{Cntrl}", "?"));
            else found.add(one);
        return found;
    }

    private static boolean isOdd(Path relative) {
        for (Path part : relative) if (ODD.matcher(part.toString()).matches()) return true;
        return false;
    }

    /**
     * Says to the hub that this is all, with the hash of each file.
     *
     * @param unsent gets what the hub does not have as it is here
     * @return how many files the hub has whole
     */
    int end(HubConnection hub, String project, String run, List<String> unsent)
            throws IOException, InterruptedException {
        if (!isNamed()) {
            unsent.add(folder.name() + ": no JVM has recorded anything in it");
            return 0;
        }
        for (String one : odd) unsent.add(one + ": has a name that other systems cannot keep");
        var manifest = new StringBuilder(); // as sha256sum has it
        for (SentFile file : files.values()) {
            if (file.isForgotten()) continue; // it came and went while nobody looked
            if (file.failed() == null) manifest.append(file.sha256() + "  " + file.name() + "\n");
            else unsent.add(file.name() + ": " + file.failed());
        }
        HttpResponse<String> answer = hub.ask(
                "POST",
                at(hub, project, run, "end"),
                Map.of("Content-Type", "text/plain; charset=utf-8"),
                BodyPublishers.ofString(manifest.toString()),
                Set.of(200, 409));
        if (answer.statusCode() == 409) answer.body().lines().forEach(unsent::add);
        long whole =
                files.values().stream().filter(file -> file.failed() == null).count();
        int wrong = answer.statusCode() == 409 ? (int) answer.body().lines().count() : 0;
        return (int) Math.max(0, whole - wrong);
    }

    /** Whether each of its JVMs has ended in order, and there was one. */
    boolean hasEnded() throws IOException {
        List<Path> journals = folder.journalFiles();
        for (Path journal : journals) if (!JournalTail.hasEnded(journal)) return false;
        return !journals.isEmpty();
    }
}
