package dev.verbale.results;

import dev.verbale.event.Failure;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** A journal writes each throwable once; what refers to it is made whole here. */
final class FailureReferences {

    private final Map<Integer, Failure> written = new HashMap<>();

    /**
     * {@code told}, or what it refers to.
     *
     * @param problem told where it refers to nothing
     */
    @Nullable
    Failure whole(@Nullable Failure told, Consumer<String> problem) {
        if (told == null) return null;
        if (told.isReference()) {
            Failure known = written.get(told.id());
            if (known != null) return known;
            problem.accept("refers to the failure " + told.id() + ", which is not in this journal");
            return new Failure("unknown", "It was to be recorded earlier, and is missing", "", null, null, List.of());
        }
        List<Failure> gathered = new ArrayList<>();
        for (Failure one : told.gathered()) {
            Failure inner = whole(one, problem);
            if (inner != null) gathered.add(inner);
        }
        var whole = new Failure(
                told.id(), told.type(), told.message(), told.stack(), told.expected(), told.actual(), gathered);
        if (told.id() != 0) written.put(told.id(), whole);
        return whole;
    }
}
