package dev.verbale.cucumber;

import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.spi.SharedContainer;
import io.cucumber.plugin.event.TestStep;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/** A scenario while it runs, on one thread. */
final class OpenScenario {

    final Scope scope;
    final List<SharedContainer> containers;

    /** What the step of the moment is recorded as. */
    Step step = Step.NONE;

    /** The first step that no code belongs to. */
    @Nullable
    UndefinedStep undefined;

    OpenScenario(Scope scope, List<SharedContainer> containers) {
        this.scope = scope;
        this.containers = containers;
    }

    /** Suggestions for steps without code; they come before their scenario begins. */
    static final class Suggestions {
        private final Map<String, List<String>> bySource = new ConcurrentHashMap<>();

        void add(String source, List<String> snippets) {
            bySource.put(source, snippets);
        }

        List<String> of(String source) {
            return bySource.getOrDefault(source, List.of());
        }
    }

    /** What a hook is called: by its method, or by when it runs where it has none. */
    static String hook(TestStep hook, String fallback) {
        String location = String.valueOf(hook.getCodeLocation());
        int end = location.indexOf('(');
        int begin = location.lastIndexOf('.', Math.max(end, 0));
        boolean isMethod = end > 0 && begin > 0;
        return isMethod ? location.substring(begin + 1, end).replace('_', ' ') : fallback;
    }
}
