package dev.verbale.results;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Ids as recorders count them, and as strangers write them. */
class NodesByIdTest {

    @Test
    void holds_what_a_map_would_hold() {
        var random = new Random(5);
        for (int round = 0; round < 200; round++) {
            var nodes = new NodesById();
            Map<Integer, OpenNode> map = new HashMap<>();
            int bound = new int[] {20, 5_000, 50_000, Integer.MAX_VALUE}[round % 4];
            for (int i = 0; i < 2_000; i++) {
                int id = random.nextInt(10) == 0 ? -random.nextInt(5) : random.nextInt(bound);
                if (random.nextInt(4) == 0) {
                    nodes.letGo(id);
                    map.remove(id);
                } else {
                    var node = new OpenNode(null, null);
                    nodes.put(id, node);
                    map.put(id, node);
                }
                int asked = random.nextInt(bound);
                assertThat(nodes.get(asked)).isSameAs(map.get(asked));
                assertThat(nodes.isThere(id)).isEqualTo(map.containsKey(id));
            }
            map.forEach((id, node) -> assertThat(nodes.get(id)).isSameAs(node));
        }
    }

    /** An array up to the highest of them would take 17 GB. */
    @Test
    void ids_that_lie_far_apart_take_no_more_memory_than_others() {
        var nodes = new NodesById();
        var node = new OpenNode(null, null);
        for (int i = 0; i < 400_000; i++) nodes.put(i * 5_000, node);

        assertThat(nodes.get(399_999 * 5_000)).isSameAs(node);
        assertThat(nodes.get(7)).isNull();
    }
}
