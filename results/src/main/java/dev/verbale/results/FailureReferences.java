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
     * {@code failure}, or what it refers to.
     *
     * @param problem called where it refers to nothing
     */
    @Nullable
    Failure whole(@Nullable Failure failure, Consumer<String> problem) {
        if (failure == null) return null;
        if (failure.isReference()) {
            Failure known = written.get(failure.id());
            if (known != null) return known;
            problem.accept("refers to the failure " + failure.id() + ", which is not in this journal");
            return Failure.of("unknown", "")
                    .message("It was to be recorded earlier, and is missing")
                    .build();
        }
        List<Failure> gathered = new ArrayList<>();
        for (Failure one : failure.gathered()) {
            Failure inner = whole(one, problem);
            if (inner != null) gathered.add(inner);
        }
        var whole = Failure.of(failure.type(), failure.stack())
                .id(failure.id())
                .message(failure.message())
                .expected(failure.expected())
                .actual(failure.actual())
                .gathered(gathered)
                .build();
        if (failure.id() != 0) written.put(failure.id(), whole);
        return whole;
    }
}
