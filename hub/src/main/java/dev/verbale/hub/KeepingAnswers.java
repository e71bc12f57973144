package dev.verbale.hub;

import dev.verbale.hub.Keeping.Going;
import dev.verbale.hub.Keeping.Rule;
import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Fields;
import org.jspecify.annotations.Nullable;

/** How long runs are kept: asked by whoever is of the project, set by administrators. What goes is said a week before. */
final class KeepingAnswers {

    private static final Duration WITHIN = Duration.ofDays(7);
    private static final int LONGEST_DAYS = 36_500;

    private final Keeping keeping;

    KeepingAnswers(Keeping keeping) {
        this.keeping = keeping;
    }

    /** In lines: what the rule is, and what goes within a week. */
    void answer(Request request, Response response, Access access, String project) throws IOException, Refused {
        if (request.getMethod().equals("PUT")) {
            if (!access.isAdministrator()) throw new Refused(403, "only administrators say how long runs are kept");
            keeping.rule(project, rule(Form.of(request)));
        } else if (!WebMethods.isRead(request.getMethod()))
            throw new Refused(405, "how long runs are kept is read with GET and set with PUT");
        Rule rule = keeping.rule(project).orElse(Rule.ALL);
        var lines = new StringBuilder();
        if (rule.equals(Rule.ALL)) lines.append("all runs stay\n");
        if (rule.days() != null) lines.append("days: ").append(rule.days()).append('\n');
        if (rule.failingDays() != null)
            lines.append("failing-days: ").append(rule.failingDays()).append('\n');
        if (rule.bytes() != null)
            lines.append("max-bytes: ").append(rule.bytes()).append('\n');
        List<Going> going = keeping.going(project, Instant.now().plus(WITHIN));
        for (Going one : going)
            lines.append(one.run())
                    .append(" goes ")
                    .append(one.at())
                    .append(": ")
                    .append(one.why())
                    .append('\n');
        HubAnswer.send(response, 200, "text/plain; charset=utf-8", lines.toString());
    }

    private static Rule rule(Fields form) throws Refused {
        Long days = number(form, "days", LONGEST_DAYS);
        Long failing = number(form, "failing-days", LONGEST_DAYS);
        if (failing != null && days == null)
            throw new Refused(422, "failing-days are how long failing runs stay when others go: say days too");
        return new Rule(
                days == null ? null : days.intValue(),
                failing == null ? null : failing.intValue(),
                number(form, "max-bytes", Long.MAX_VALUE));
    }

    /** Null where it says nothing. */
    private static @Nullable Long number(Fields form, String name, long largest) throws Refused {
        String text = Form.text(form, name);
        if (text.isEmpty()) return null;
        if (!text.matches("\\d{1,18}") || Long.parseLong(text) < 1 || Long.parseLong(text) > largest)
            throw new Refused(422, name + " takes a whole number from 1, not '" + text + "'");
        return Long.valueOf(text);
    }

    /** Says that a run stays whatever the rule says, or that it may go with the others. */
    void stays(Request request, Response response, Access access, String project, String run)
            throws IOException, Refused {
        if (!access.may(Role.LABEL, project)) throw new Refused(403, "this token may not say which runs stay");
        boolean stays = request.getMethod().equals("PUT");
        if (!stays && !request.getMethod().equals("DELETE"))
            throw new Refused(405, "that a run stays is said with PUT, and taken back with DELETE");
        if (!keeping.stays(project, run, stays)) throw new Refused(404, "there is no run " + run);
        HubAnswer.nothing(response, 204);
    }
}
