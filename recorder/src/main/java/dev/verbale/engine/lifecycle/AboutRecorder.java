package dev.verbale.engine.lifecycle;

import dev.verbale.RecorderOptions.LinkPattern;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.parts.Parts;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.scope.ThreadContext;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.AboutStated;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.About.Link;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import org.jspecify.annotations.Nullable;

/** Writes down what tests are about, with the addresses of what they are linked to. */
public final class AboutRecorder {

    private record Known(Pattern name, String address) {}

    private final Guard guard;
    private final RunJournal journal;
    private final Scopes scopes;
    private final Texts texts;
    private final List<Known> known = new ArrayList<>();

    public AboutRecorder(Parts parts, List<LinkPattern> patterns) {
        this.guard = parts.guard();
        this.journal = parts.journal();
        this.scopes = parts.scopes();
        this.texts = parts.texts();
        for (LinkPattern pattern : patterns) {
            try {
                known.add(new Known(Pattern.compile(pattern.name()), pattern.address()));
            } catch (PatternSyntaxException broken) {
                journal.problems().add("the link pattern " + pattern.name() + ": " + broken);
            }
        }
    }

    /** What the test of this thread is about. */
    public void about(@Nullable About given) {
        if (given != null) guard.run(Task.ABOUT, context -> write(context, given));
    }

    /** What the test of this thread is about, in words. */
    public void text(@Nullable String text) {
        guard.run(Task.ABOUT, context -> write(context, About.of().text(text).build()));
    }

    /** That the test of this thread is linked to {@code name}. */
    public void link(@Nullable String name) {
        guard.run(Task.ABOUT, context -> write(context, About.of().link(name).build()));
    }

    private void write(ThreadContext context, About given) {
        ScopeNode test = scopes.current(context).ofState();
        var about = About.of()
                .text(texts.cutOrNull(given.text(), Texts.LONGEST))
                .severity(texts.cutOrNull(given.severity(), Texts.LONGEST))
                .owner(texts.cutOrNull(given.owner(), Texts.LONGEST));
        for (Link link : given.links()) about.link(addressed(link));
        journal.append(test, new AboutStated(journal.now(), test.id(), about.build()));
    }

    private Link addressed(Link given) {
        String name = texts.name(given.name());
        if (given.address() != null) return new Link(name, texts.cut(given.address(), Texts.LONGEST));
        if (name.matches("https?://\\S+")) return new Link(name, name);
        for (Known one : known) {
            Matcher matcher = one.name().matcher(name);
            if (matcher.matches()) return new Link(name, matcher.replaceFirst(one.address()));
        }
        return new Link(name, null);
    }
}
