package dev.verbale.hub;

import dev.verbale.history.History;
import dev.verbale.history.TestHistory;
import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Response;

/** What is remembered of a project, for programs that reckon with it themselves: files of a history folder. */
final class HistoryAnswers {

    private final Histories histories;
    private final Map<Path, Hashed> hashes = new ConcurrentHashMap<>();

    /** A file as it was when its hash was made. */
    private record Hashed(long size, FileTime changed, String hash) {}

    HistoryAnswers(Histories histories) {
        this.histories = histories;
    }

    /** The page of a test over all runs. */
    void test(Asked asked) throws IOException, Refused {
        String key = Form.parameter(asked.request(), "key");
        History history = histories.read(asked.project());
        TestHistory test = history.test(key)
                .orElseThrow(() -> new Refused(404, "no run of this project that is over has a test with that key"));
        HubAnswer.html(asked.response(), 200, new TestPage(history, test).html());
    }

    /** In lines as {@code sha256sum} writes them: who has some of them asks for the others. */
    void list(Asked asked) throws IOException {
        var lines = new StringBuilder();
        for (Path file : histories.of(asked.project()).files())
            lines.append(hash(file)).append("  ").append(file.getFileName()).append('\n');
        HubAnswer.send(asked.response(), 200, "text/plain; charset=utf-8", lines.toString());
    }

    private String hash(Path file) throws IOException {
        BasicFileAttributes now = Files.readAttributes(file, BasicFileAttributes.class);
        Hashed before = hashes.get(file);
        if (before != null && before.size() == now.size() && before.changed().equals(now.lastModifiedTime()))
            return before.hash();
        String hash;
        try (InputStream in = Files.newInputStream(file)) {
            hash = Sha256.copy(in, OutputStream.nullOutputStream());
        }
        hashes.put(file, new Hashed(now.size(), now.lastModifiedTime(), hash));
        return hash;
    }

    void file(Asked asked) throws IOException, Refused {
        Response response = asked.response();
        for (Path file : histories.of(asked.project()).files()) {
            if (!file.getFileName().toString().equals(asked.name("file"))) continue;
            response.getHeaders().put("Content-Type", "application/gzip");
            try (InputStream in = Files.newInputStream(file);
                    OutputStream out = Content.Sink.asOutputStream(response)) {
                in.transferTo(out);
            }
            return;
        }
        throw new Refused(404, "nothing is remembered under that name");
    }
}
