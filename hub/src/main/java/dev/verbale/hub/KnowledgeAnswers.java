package dev.verbale.hub;

import dev.verbale.hub.Knowledge.Change;
import dev.verbale.hub.Uploads.Refused;
import dev.verbale.rules.RulesWriter;
import dev.verbale.rules.TriageRule;
import java.io.IOException;
import java.net.URI;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.regex.Pattern;
import org.eclipse.jetty.util.Fields;
import org.jspecify.annotations.Nullable;

/** What people know of reasons: asked by programs and seen by people, changed by both. */
final class KnowledgeAnswers {

    /** A part of an address; see {@link dev.verbale.results.reason.FailureReason#id()}. */
    private static final Pattern REASON = Pattern.compile("[0-9a-z]{1,64}");

    private static final int LONGEST_LABEL = 100;
    private static final int LONGEST_OWNER = 200;
    private static final int LONGEST_LINK = 1_000;
    private static final int LONGEST_COMMENT = 2_000;

    private final Knowledge knowledge;
    private final Histories histories;

    KnowledgeAnswers(Knowledge knowledge, Histories histories) {
        this.knowledge = knowledge;
        this.histories = histories;
    }

    /** All that is known in a project, as a file of rules. */
    void rules(Asked asked) throws IOException {
        HubAnswer.send(
                asked.response(), 200, "text/plain; charset=utf-8", RulesWriter.write(knowledge.of(asked.project())));
    }

    /** For a program: what is known of a reason. */
    void know(Asked asked) throws IOException, Refused {
        know(Form.of(asked.request()), asked);
        HubAnswer.nothing(asked.response(), 204);
    }

    /** For a program: takes away what is known of a reason. */
    void forget(Asked asked) throws IOException, Refused {
        change(asked, null);
        HubAnswer.nothing(asked.response(), 204);
    }

    /** For a person, who sees the page of the reason again. */
    void form(Asked asked) throws IOException, Refused {
        if (!asked.access().may(Role.LABEL, asked.project()))
            throw new Refused(403, "this needs the role label in the project " + asked.project());
        Fields form = Form.of(asked.request());
        if (Form.text(form, "forget").isEmpty()) know(form, asked);
        else change(asked, null);
        asked.response().getHeaders().put("Location", reason(asked));
        HubAnswer.nothing(asked.response(), 303);
    }

    /** The page of a reason. */
    void page(Asked asked) throws IOException, Refused {
        String project = asked.project();
        String reason = reason(asked);
        List<Change> changes = knowledge.changes(project, reason);
        boolean mayLabel = asked.access().may(Role.LABEL, project);
        HubAnswer.html(
                asked.response(), 200, new ReasonPage(histories.read(project), reason, changes, mayLabel).html());
    }

    private void know(Fields form, Asked asked) throws Refused {
        String label = text(form, "label", LONGEST_LABEL);
        if (label == null) throw new Refused(422, "say whose the failure is: label, such as product");
        change(
                asked,
                TriageRule.ofReason(
                        reason(asked),
                        label,
                        text(form, "owner", LONGEST_OWNER),
                        link(text(form, "link", LONGEST_LINK)),
                        text(form, "comment", LONGEST_COMMENT),
                        day(text(form, "known-until", LONGEST_LABEL))));
    }

    private void change(Asked asked, @Nullable TriageRule rule) throws Refused {
        knowledge.change(asked.project(), reason(asked), rule, asked.access().label());
    }

    private static String reason(Asked asked) throws Refused {
        String reason = asked.name("reason");
        if (REASON.matcher(reason).matches()) return reason;
        throw new Refused(404, "a reason has an id of letters and digits, such as 3f09a1c2b7d4");
    }

    /** In one line; null where it is empty. */
    private static @Nullable String text(Fields form, String name, int longest) throws Refused {
        String text = Form.text(form, name).replaceAll("[\\s\\p{Cntrl}]+", " ").strip();
        if (text.length() > longest) throw new Refused(422, name + " has " + longest + " characters at the most");
        return text.isEmpty() ? null : text;
    }

    private static @Nullable String link(@Nullable String link) throws Refused {
        if (link == null) return null;
        try {
            String scheme = URI.create(link).getScheme();
            if ("http".equals(scheme) || "https".equals(scheme)) return link;
        } catch (IllegalArgumentException none) {
            // as of another scheme
        }
        throw new Refused(422, "the link has to be an address such as https://tracker.orto.example/17");
    }

    private static @Nullable LocalDate day(@Nullable String day) throws Refused {
        try {
            return day == null ? null : LocalDate.parse(day);
        } catch (DateTimeParseException none) {
            throw new Refused(422, "known-until is a day such as 2026-12-31");
        }
    }
}
