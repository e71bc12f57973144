package dev.verbale.journal.line;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The fields of one JSON object in their order. Most have fewer than ten, and are asked for in that order: looking from where the
 * last one was found is faster than any table, and takes less memory.
 */
final class JsonObject {

    private static final int MAX_IN_A_ROW = 32;

    private String[] names = new String[8];
    private @Nullable Object[] values = new Object[8];
    private boolean[] asked = new boolean[8];
    private int size;
    private int next;
    private @Nullable Map<String, Integer> index; // of an object that nobody writes, and that must not cost its square

    /** Whether there was one of that name, which the new value replaces. */
    boolean put(String name, @Nullable Object value) {
        int before = find(name);
        if (before >= 0) {
            values[before] = value;
            return true;
        }
        if (size == names.length) {
            names = Arrays.copyOf(names, size * 2);
            values = Arrays.copyOf(values, size * 2);
            asked = Arrays.copyOf(asked, size * 2);
        }
        names[size] = name;
        values[size] = value;
        if (index != null) index.put(name, size);
        size++;
        if (index == null && size > MAX_IN_A_ROW) index = indexed();
        return false;
    }

    /** Null also where there is none. */
    @Nullable
    Object get(String name) {
        int found = find(name);
        if (found < 0) return null;
        asked[found] = true;
        return values[found];
    }

    private Map<String, Integer> indexed() {
        Map<String, Integer> all = new HashMap<>();
        for (int i = 0; i < size; i++) all.put(names[i], i);
        return all;
    }

    private int find(String name) {
        if (index != null) return index.getOrDefault(name, -1);
        for (int i = next; i < size; i++) if (names[i].equals(name)) return found(i);
        for (int i = 0; i < next; i++) if (names[i].equals(name)) return found(i);
        return -1;
    }

    private int found(int index) {
        next = index + 1;
        return index;
    }

    /** In their order. */
    List<String> names() {
        return List.of(Arrays.copyOf(names, size));
    }

    int size() {
        return size;
    }

    String name(int index) {
        return names[index];
    }

    /** Whether somebody asked for it, so that it is known. */
    boolean wasAsked(int index) {
        return asked[index];
    }
}
