package dev.verbale.messages;

import com.samskivert.mustache.Mustache;
import com.samskivert.mustache.MustacheException;
import com.samskivert.mustache.Template;
import dev.verbale.json.JsonIn;
import dev.verbale.json.JsonOut;
import dev.verbale.results.Counts;
import dev.verbale.results.Texts;
import dev.verbale.rules.TodayParts.Part;
import dev.verbale.rules.TodayParts.Reason;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;

/**
 * A message in JSON, with names in double braces where something of a run goes in (Mustache: values, sections, no logic). Whatever goes in is escaped as
 * the inside of a JSON string.
 *
 * @see <a href="https://mustache.github.io/mustache.5.html">mustache(5)</a>
 * @since 0.2.0
 */
public final class MessageTemplate {

    /** Those that come along, by what whoever takes them wants: all that is known; one text; blocks; a card. */
    public static final List<String> OWN = List.of("plain", "text", "blocks", "card");

    private static final int LONGEST = 1 << 20;
    private static final int LONGEST_TEXT = 300;
    private static final int MAX_REASONS = 10;

    private final String name;
    private final Template template;

    private MessageTemplate(String name, String text) throws IOException {
        this.name = name;
        try {
            template = Mustache.compiler()
                    .withEscaper(MessageTemplate::escaped)
                    .defaultValue("")
                    .compile(text);
        } catch (MustacheException wrong) {
            throw new IOException(name + " is no template: " + wrong.getMessage(), wrong);
        }
    }

    /**
     * One of {@link #OWN}, or a file.
     *
     * @throws IOException where there is none, or it is no template
     */
    public static MessageTemplate of(String name) throws IOException {
        if (OWN.contains(name)) {
            try (InputStream in = MessageTemplate.class.getResourceAsStream(name + ".json")) {
                if (in == null) throw new IOException(name + ".json is missing in this build of Verbale");
                return new MessageTemplate(name, new String(in.readAllBytes(), StandardCharsets.UTF_8));
            }
        }
        Path file = Path.of(name);
        if (!Files.isRegularFile(file))
            throw new IOException("there is no template " + name + ": name a file, or " + String.join(", ", OWN));
        if (Files.size(file) > LONGEST) throw new IOException(name + " is longer than any message");
        return new MessageTemplate(name, Files.readString(file));
    }

    /**
     * The message about a run.
     *
     * @throws IOException where what comes out is no JSON; it says where
     */
    public byte[] of(RunNews news) throws IOException {
        String text;
        try {
            text = template.execute(values(news));
        } catch (MustacheException wrong) {
            throw new IOException(name + ": " + wrong.getMessage(), wrong);
        }
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        try (JsonParser json = JsonIn.parser(bytes)) {
            if (json.nextToken() == null) throw new IOException(name + " gives an empty message");
            json.skipChildren();
            if (json.nextToken() != null) throw new IOException(name + " gives more than one value of JSON");
        } catch (JacksonException wrong) {
            throw new IOException(
                    name + " gives no JSON: " + wrong.getOriginalMessage() + " in line "
                            + wrong.getLocation().getLineNr(),
                    wrong);
        }
        return bytes;
    }

    /** What a template can name. */
    private static Map<String, Object> values(RunNews news) {
        Map<String, Object> values = new HashMap<>();
        Map<String, String> facts = news.run().facts();
        Counts counts = news.run().counts();
        values.put("run", news.run().name());
        values.put("line", news.line());
        values.put("sentence", cut(news.today().sentence()));
        values.put("dateline", cut(news.today().dateline()));
        values.put("branch", facts.getOrDefault("branch", ""));
        values.put("commit", facts.getOrDefault("commit", ""));
        values.put("job", facts.getOrDefault("CI link", ""));
        values.put("page", news.page() == null ? "" : news.page());
        values.put("tests", counts.all());
        values.put("needingAttention", counts.needingAttention());
        values.put("newFailures", news.newFailures());
        values.put("fixed", news.fixed());
        values.put(
                "isGood",
                counts.needingAttention() == 0
                        && counts.all() > 0
                        && news.run().incomplete().isNothing());
        values.put("hasNews", news.newFailures() > 0);
        values.put("hasPage", news.page() != null);
        List<Map<String, Object>> parts = new ArrayList<>();
        for (Part part : news.today().parts()) {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("title", part.title());
            one.put("count", part.count());
            List<Map<String, Object>> reasons = new ArrayList<>();
            for (Reason reason : part.reasons()
                    .subList(0, Math.min(MAX_REASONS, part.reasons().size()))) {
                Map<String, Object> its = new LinkedHashMap<>();
                its.put("title", cut(reason.title()));
                its.put("evidence", reason.evidence() == null ? "" : cut(reason.evidence()));
                its.put("tests", reason.tests().size());
                its.put("about", cut(String.join(" ", reason.about())));
                reasons.add(its);
            }
            one.put("reasons", reasons);
            parts.add(one);
        }
        values.put("parts", parts);
        return values;
    }

    private static String cut(String text) {
        return Texts.cut(RunNews.plain(text), LONGEST_TEXT);
    }

    /** As the inside of a string of JSON. */
    private static String escaped(String text) {
        var bytes = new ByteArrayOutputStream();
        try (var json = JsonOut.generator(bytes)) {
            json.writeString(dev.verbale.json.WellFormedText.of(text));
        }
        String quoted = bytes.toString(StandardCharsets.UTF_8);
        return quoted.substring(1, quoted.length() - 1);
    }
}
