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
            if (known != null) return failure.gathered().isEmpty() ? known : with(known, failure.gathered(), problem);
            problem.accept("refers to the failure " + failure.id() + ", which is not in this journal");
            return Failure.of("unknown", "")
                    .message("It was to be recorded earlier, and is missing")
                    .build();
        }
        Failure whole = with(failure, List.of(), problem);
        if (failure.id() != 0) written.put(failure.id(), whole);
        return whole;
    }

    /** {@code failure}, with what came after it too. */
    private Failure with(Failure failure, List<Failure> after, Consumer<String> problem) {
        List<Failure> gathered = new ArrayList<>();
        for (List<Failure> some : List.of(failure.gathered(), after))
            for (Failure one : some) {
                Failure inner = whole(one, problem);
                if (inner != null) gathered.add(inner);
            }
        return Failure.of(failure.type(), failure.stack())
                .id(failure.id())
                .message(failure.message())
                .expected(failure.expected())
                .actual(failure.actual())
                .gathered(gathered)
                .build();
    }
}
