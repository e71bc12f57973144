package dev.verbale.journal.line;

import java.util.Collections;
import java.util.Set;
import java.util.TreeSet;

/** Names of fields that stand in a line and that no codec knows: a later version may have written them. */
public final class UnknownFields {

    private final Set<String> names = new TreeSet<>();

    void add(String owner, String name) {
        names.add(owner + "." + name);
    }

    /** Such as {@code log.mood}, in the order of the alphabet. */
    public Set<String> names() {
        return Collections.unmodifiableSet(names);
    }
}
