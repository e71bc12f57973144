package dev.verbale.results;

import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What is known of a run that was joined of others: what they all say once, what they say differently side by side. */
final class JoinedFacts {

    private static final int MAX_VALUES = 4;

    private final Map<String, String> facts;
    private final Map<String, Set<String>> values = new LinkedHashMap<>();
    private final List<Map<String, String>> byShard = new ArrayList<>();

    /** @param facts of the joined run itself, which are added to */
    JoinedFacts(Map<String, String> facts) {
        this.facts = facts;
    }

    void add(RunFolder shard, List<Problem> problems) {
        byShard.add(new LinkedHashMap<>());
        try {
            add(RunDescription.read(shard.runFile()).facts());
        } catch (IOException unreadable) {
            problems.add(new Problem(
                    "shards/" + shard.name() + "/run.json",
                    0,
                    "cannot be read (" + unreadable.getMessage() + "): what it says is left out"));
        }
    }

    /** What a journal of the shard that was added last says. */
    void add(Map<String, String> more) {
        byShard.get(byShard.size() - 1).putAll(more);
        more.forEach((name, value) -> {
            Set<String> all = values.computeIfAbsent(name, added -> new LinkedHashSet<>());
            all.add(value);
            List<String> some = all.stream().limit(MAX_VALUES).toList();
            facts.put(
                    name,
                    String.join(", ", some)
                            + (all.size() > MAX_VALUES ? ", and " + (all.size() - MAX_VALUES) + " more" : ""));
        });
    }

    /** After all of them. */
    void end() {
        if (byShard.isEmpty()) return;
        RunPart.join(facts, byShard);
        RunTags.join(facts, byShard);
    }

    /** How many hosts there are. */
    int machines() {
        return values.getOrDefault("host", Set.of()).size();
    }
}
