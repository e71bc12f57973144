package dev.verbale.hub;

import dev.verbale.hub.Keeping.Going;
import dev.verbale.hub.Keeping.Rule;
import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
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
    void say(Asked asked) throws IOException {
        String project = asked.project();
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
        HubAnswer.send(asked.response(), 200, "text/plain; charset=utf-8", lines.toString());
    }

    /** Sets the rule, and says it. */
    void set(Asked asked) throws IOException, Refused {
        keeping.rule(asked.project(), rule(Form.of(asked.request())));
        say(asked);
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
    void stays(Asked asked, boolean stays) throws IOException, Refused {
        String run = asked.name("run");
        if (!keeping.stays(asked.project(), run, stays)) throw new Refused(404, "there is no run " + run);
        HubAnswer.nothing(asked.response(), 204);
    }
}
