package dev.verbale.results;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What began, by its id. Recorders count ids from 1 without gaps, so most lie in an array; what a stranger wrote may have any, and
 * lies in a map.
 */
final class NodesById {

    /** The array is never much longer than what is in it, whatever ids somebody wrote. */
    private static final int MAX_LENGTH = 4;

    private static final int SMALL = 1 << 12;

    private @Nullable OpenNode[] counted = new OpenNode[256];
    private final Map<Integer, OpenNode> others = new HashMap<>();
    private int count;

    @Nullable
    OpenNode get(int id) {
        OpenNode found = id >= 0 && id < counted.length ? counted[id] : null;
        return found != null || others.isEmpty() ? found : others.get(id);
    }

    boolean has(int id) {
        return get(id) != null;
    }

    void put(int id, OpenNode node) {
        others.remove(id);
        count++;
        if (id < 0 || id >= counted.length && id > (long) MAX_LENGTH * count + SMALL) {
            others.put(id, node);
            return;
        }
        if (id >= counted.length) counted = Arrays.copyOf(counted, Math.max(id + 1, counted.length * 2));
        counted[id] = node;
    }

    void remove(int id) {
        if (id >= 0 && id < counted.length) counted[id] = null;
        if (!others.isEmpty()) others.remove(id);
    }
}
