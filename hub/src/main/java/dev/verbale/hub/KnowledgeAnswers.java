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
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
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
    void rules(Response response, String project) throws IOException {
        HubAnswer.send(response, 200, "application/yaml; charset=utf-8", RulesWriter.write(knowledge.of(project)));
    }

    /** For a program: what is known of a reason is put, or taken away. */
    void change(Request request, Response response, Access access, String project, String reason)
            throws IOException, Refused {
        switch (request.getMethod()) {
            case "PUT" -> know(request, access, project, reason);
            case "DELETE" -> forget(access, project, reason);
            default -> throw new Refused(405, "what is known of a reason is put with PUT and taken away with DELETE");
        }
        HubAnswer.nothing(response, 204);
    }

    /** For a person, who sees the page of the reason again. */
    void form(Request request, Response response, Access access, String project, String reason)
            throws IOException, Refused {
        Fields form = Form.of(request);
        if (Form.text(form, "forget").isEmpty()) know(form, access, project, reason);
        else forget(access, project, reason);
        response.getHeaders().put("Location", reason);
        HubAnswer.nothing(response, 303);
    }

    /** The page of a reason. */
    void page(Response response, Access access, String project, String reason) throws IOException, Refused {
        named(reason);
        List<Change> changes = knowledge.changes(project, reason);
        HubAnswer.html(
                response,
                200,
                new ReasonPage(histories.read(project), reason, changes, access.may(Role.LABEL, project)).html());
    }

    private void know(Request request, Access access, String project, String reason) throws Refused {
        know(Form.of(request), access, project, reason);
    }

    private void know(Fields form, Access access, String project, String reason) throws Refused {
        allowed(access, project, reason);
        String label = text(form, "label", LONGEST_LABEL);
        if (label == null) throw new Refused(422, "say whose the failure is: label, such as product");
        knowledge.change(
                project,
                reason,
                TriageRule.ofReason(
                        reason,
                        label,
                        text(form, "owner", LONGEST_OWNER),
                        link(text(form, "link", LONGEST_LINK)),
                        text(form, "comment", LONGEST_COMMENT),
                        day(text(form, "known-until", LONGEST_LABEL))),
                access.label());
    }

    private void forget(Access access, String project, String reason) throws Refused {
        allowed(access, project, reason);
        knowledge.change(project, reason, null, access.label());
    }

    private static void allowed(Access access, String project, String reason) throws Refused {
        if (!access.may(Role.LABEL, project)) throw new Refused(403, "this token may not label reasons of " + project);
        named(reason);
    }

    private static void named(String reason) throws Refused {
        if (!REASON.matcher(reason).matches())
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
