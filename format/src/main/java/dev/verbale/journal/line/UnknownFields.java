package dev.verbale.journal.line;

import java.util.Collections;
import java.util.Set;
import java.util.TreeSet;

/** Names of fields that stand in a line and that no codec knows: a later version may have written them. */
public final class UnknownFields {

    private Set<String> names = Set.of(); // hardly any line has some

    void add(String owner, String name) {
        if (names.isEmpty()) names = new TreeSet<>();
        names.add(owner + "." + name);
    }

    /** Such as {@code log.mood}, in the order of the alphabet. */
    public Set<String> names() {
        return Collections.unmodifiableSet(names);
    }
}
