package dev.verbale.report;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.journal.PlainFile;
import dev.verbale.json.TextCuts;
import dev.verbale.results.Entry;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * {@code data/failures/0.js}: what was recorded of the tests that need attention, as texts to search in: steps, log lines, console
 * errors, bodies of responses, checks, stacks. Loaded when somebody searches. Of tests that passed only the rows are searched.
 */
final class FailureTexts {

    /** Of one test: who searches knows a word of its end or of its beginning. */
    private static final int LONGEST = 20_000;

    /** Of all: a browser reads that in a second. */
    private static final int LONGEST_OF_ALL = 24_000_000;

    private static final int LONGEST_PIECE = 4_000;

    private final StringBuilder text = new StringBuilder();

    /** What it has in common with others. */
    private final Set<Integer> pieces = new LinkedHashSet<>();

    private final PageContent content;
    private final SharedTexts texts;

    private FailureTexts(PageContent content, SharedTexts texts) {
        this.content = content;
        this.texts = texts;
    }

    static void write(List<Row> rows, PageContent content, SharedTexts texts, Path data) throws IOException {
        Path folder = Files.createDirectories(data.resolve("failures"));
        ScriptFile.write(folder.resolve("0.js"), "failures", "0", json -> {
            int all = 0;
            json.writeStartObject();
            json.writeArrayPropertyStart("texts");
            for (int i = 0; i < rows.size() && all < LONGEST_OF_ALL; i++) {
                if (!rows.get(i).outcome().needsAttention()) continue;
                var found = new FailureTexts(content, texts);
                found.failure(rows.get(i).failure());
                found.entries(rows.get(i).entries());
                all += found.text.length() + found.pieces.size();
                json.writeStartArray();
                json.writeNumber(i);
                json.writeString(found.text.toString());
                for (int piece : found.pieces) json.writeNumber(piece);
                json.writeEndArray();
            }
            json.writeEndArray();
            texts.writeFiles(json);
            json.writeEndObject();
        });
    }

    private void entries(List<Entry> entries) {
        for (Entry entry : entries) {
            if (text.length() > LONGEST) return;
            if (!content.has(entry)) continue;
            if (entry instanceof Entry.StepEntry step) {
                add(step.name());
                failure(step.failure());
            } else if (entry instanceof Entry.LogEntry log) add(log.text());
            else if (entry instanceof Entry.CheckEntry check) add(check.name());
            else if (entry instanceof Entry.ExchangeEntry exchange) exchange(exchange.made());
            else if (entry instanceof Entry.AttachmentEntry attachment) attachment(attachment);
            entries(Entry.inside(entry));
        }
    }

    private void exchange(ExchangeMade made) {
        add(made.request().method() + " " + made.request().url());
        if (made.response() != null && made.response().body() != null)
            add(made.response().body().text());
    }

    private void attachment(Entry.AttachmentEntry attachment) {
        add(attachment.name());
        if (!attachment.kind().equals(AttachmentKind.CONSOLE) || attachment.file() == null) return;
        try {
            try (InputStream in = PlainFile.open(attachment.file())) {
                add(new String(in.readNBytes(LONGEST_PIECE), StandardCharsets.UTF_8));
            }
        } catch (IOException unreadable) {
            // then it cannot be found by its console; the row says what it is
        }
    }

    private void failure(@Nullable Failure failure) {
        if (failure == null) return;
        add(failure.type());
        add(failure.message());
        add(failure.stack());
    }

    private void add(@Nullable String piece) {
        if (piece == null || text.length() > LONGEST) return;
        String some = piece.substring(0, Math.min(piece.length(), LONGEST_PIECE));
        for (Object part : some.length() < TextCuts.SHORTEST_TEXT ? List.of(some) : texts.of(some)) {
            if (part instanceof Integer number) pieces.add(number);
            else text.append(part);
        }
        text.append('\n');
    }
}
