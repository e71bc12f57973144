package dev.verbale.report;

import dev.verbale.folder.MediaTypes;
import dev.verbale.journal.PlainFile;
import dev.verbale.journal.WellFormedText;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import java.io.IOException;
import java.io.InputStream;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Set;
import java.util.stream.Collectors;
import tools.jackson.core.JsonGenerator;

/**
 * Brings papers into the page's folder, so that it loses nothing when it is handed on without the run.
 *
 * <p>Only pictures and videos that cannot run anything keep their extension. Everything else gets {@code .txt} behind its
 * name: a page source that somebody opens by hand must not run as a page. Text is put into a script file too, since a page
 * that was opened from disk may not fetch.
 */
final class PaperShelf {

    private static final Set<String> HARMLESS =
            Set.of("image/png", "image/jpeg", "image/gif", "image/webp", "video/webm", "video/mp4");

    /** What the page shows of one text; a longer one is cut there, says so, and is whole beside the page. */
    private static final int LONGEST_TEXT = 2_000_000;

    private final Run run;
    private final Path page;
    private final String shelf;
    private int texts;

    /**
     * @param shelf a word that the files of this run have in their names; empty for the page's own run
     */
    PaperShelf(Run run, Path page, String shelf) {
        this.run = run;
        this.page = page;
        this.shelf = shelf;
    }

    private String papers() {
        return shelf.isEmpty() ? "papers/" : "papers/" + shelf + "/";
    }

    /** Copies {@code paper} and writes where it is now. One that is missing in the run has no place. */
    void shelve(Entry.PaperEntry paper, JsonGenerator json) throws IOException {
        Path stored = paper.file();
        if (stored == null) return;
        Path root = run.folder().toAbsolutePath().normalize();
        String name = root.relativize(stored).toString().replace('\\', '/');
        boolean harmless = HARMLESS.contains(paper.mediaType()) && HARMLESS.contains(MediaTypes.ofFile(name));
        if (!harmless) name += ".txt";
        Path copy = page.resolve(papers() + name);
        Files.createDirectories(copy.getParent());
        if (!Files.exists(copy)) {
            try (InputStream in = PlainFile.open(stored)) { // no link, whatever it has become since it was read
                Files.copy(in, copy);
            }
        }
        json.writeStringProperty("href", papers() + encoded(name));
        if (MediaTypes.isText(paper.mediaType())) json.writeStringProperty("text", text(stored));
    }

    /** Puts the chapters of a video beside it, and writes where they are. */
    void putBeside(Entry.PaperEntry video, String chapters, JsonGenerator json) throws IOException {
        Path stored = video.file();
        if (stored == null) return;
        String name = run.folder().toAbsolutePath().normalize().relativize(stored) + ".vtt";
        name = name.replace('\\', '/');
        Path beside = page.resolve(papers() + name);
        Files.createDirectories(beside.getParent());
        Files.writeString(beside, chapters);
        json.writeStringProperty("chapters", papers() + encoded(name));
    }

    private String text(Path stored) throws IOException {
        String id = shelf + texts++;
        byte[] bytes;
        try (InputStream in = PlainFile.open(stored)) {
            bytes = in.readNBytes(LONGEST_TEXT);
        }
        boolean cut = Files.size(stored) > bytes.length;
        Path folder = Files.createDirectories(page.resolve("data/texts"));
        ScriptFile.write(folder.resolve(id + ".js"), "text", id, json -> {
            json.writeStartObject();
            json.writeStringProperty("text", WellFormedText.of(new String(bytes, StandardCharsets.UTF_8)));
            if (cut) json.writeNumberProperty("cutAt", LONGEST_TEXT);
            json.writeEndObject();
        });
        return id;
    }

    private static String encoded(String path) {
        return Arrays.stream(path.split("/"))
                .map(part -> URLEncoder.encode(part, StandardCharsets.UTF_8).replace("+", "%20"))
                .collect(Collectors.joining("/"));
    }
}
