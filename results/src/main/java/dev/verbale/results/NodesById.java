package dev.verbale.results;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What began, by its id. Recorders count ids from 1 without gaps, so most lie in an array; what a stranger wrote may have any, and
 * lies in a map.
 */
@SuppressWarnings("ReferenceEquality") // with the one that stands for what was let go
final class NodesById {

    /** The array is never much longer than what is in it, whatever ids somebody wrote. */
    private static final int MAX_LENGTH = 4;

    private static final int SMALL = 1 << 12;

    /** In place of what was let go. */
    private static final OpenNode GONE = new OpenNode(null, null);

    private @Nullable OpenNode[] counted = new OpenNode[256];
    private final Map<Integer, OpenNode> others = new HashMap<>();
    private int count;

    /** Null where nothing has that id, or it was let go. */
    @Nullable
    OpenNode get(int id) {
        OpenNode found = any(id);
        return found == GONE ? null : found;
    }

    private @Nullable OpenNode any(int id) {
        OpenNode found = id >= 0 && id < counted.length ? counted[id] : null;
        return found != null || others.isEmpty() ? found : others.get(id);
    }

    /** Whether something began with that id, and was not let go. */
    boolean isThere(int id) {
        return get(id) != null;
    }

    /** Whether what began with that id was let go. */
    boolean isGone(int id) {
        return any(id) == GONE;
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

    /** Lets go of what has that id, and remembers that it was there. */
    void letGo(int id) {
        if (id >= 0 && id < counted.length && counted[id] != null) counted[id] = GONE;
        else others.put(id, GONE);
    }
}
