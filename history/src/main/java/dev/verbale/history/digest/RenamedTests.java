package dev.verbale.history.digest;

import dev.verbale.results.ModuleKey;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Which tests of a run are those of the run before under another name: a class that went while another came with nearly the same methods, and
 * a method that went while another came in its class with most of its words. Only where it can be nothing else: of two that are as likely,
 * neither is.
 *
 * @since 0.2.0
 */
public final class RenamedTests {

    /** A method of a class, as its own key or as of imported XML; rows of data and scenarios are called by what is in them. */
    private static final Pattern METHOD = Pattern.compile("([\\w.$]+)\\.(\\w+)(?:\\([^()]*\\))?");

    private static final Pattern WORD = Pattern.compile("[A-Z]?[a-z]+|[A-Z]+(?![a-z])|\\d+");
    private static final double LEAST_SHARED_METHODS = 0.6;
    private static final int LEAST_METHODS = 2;
    private static final double LEAST_SHARED_WORDS = 0.5;

    /** Of a class. */
    private record Method(String key, String module, String className, String name) {
        String group() {
            return module + "|" + className;
        }

        /** The class's name in its package counts, and not where that lies. */
        static @Nullable Method of(String key) {
            Matcher matcher = METHOD.matcher(ModuleKey.withoutModule(key));
            return matcher.matches()
                    ? new Method(key, ModuleKey.module(key), matcher.group(1), matcher.group(2))
                    : null;
        }
    }

    private final Map<String, String> earlier = new HashMap<>();

    /**
     * @param now the keys of a whole run
     * @param before those of the whole run before it
     */
    public RenamedTests(Collection<String> now, Collection<String> before) {
        Set<String> keysNow = new HashSet<>(now);
        Set<String> keysBefore = new HashSet<>(before);
        List<Method> fresh = methods(now, keysBefore);
        List<Method> gone = methods(before, keysNow);
        if (fresh.isEmpty() || gone.isEmpty()) return;
        classes(fresh, gone, groups(now), groups(before));
        methods(fresh, gone);
    }

    /** The key by which {@code key} was known before; null where it was not, or it cannot be told. */
    public @Nullable String earlier(String key) {
        return earlier.get(key);
    }

    private static List<Method> methods(Collection<String> keys, Set<String> without) {
        List<Method> methods = new ArrayList<>();
        for (String key : keys) {
            Method method = without.contains(key) ? null : Method.of(key);
            if (method != null) methods.add(method);
        }
        return methods;
    }

    private static Set<String> groups(Collection<String> keys) {
        Set<String> groups = new HashSet<>();
        for (Method method : methods(keys, Set.of())) groups.add(method.group());
        return groups;
    }

    /** Of classes that went and came as a whole. */
    private void classes(List<Method> fresh, List<Method> gone, Set<String> now, Set<String> before) {
        Map<String, Map<String, Method>> came = byGroup(fresh, before);
        Map<String, Map<String, Method>> went = byGroup(gone, now);
        Map<String, String> best = best(
                came.keySet(),
                went.keySet(),
                (one, other) -> sharedMethods(methodsOf(came, one), methodsOf(went, other)),
                LEAST_SHARED_METHODS);
        best.forEach((one, other) -> methodsOf(came, one).forEach((name, method) -> {
            Method old = methodsOf(went, other).get(name);
            if (old != null) earlier.put(method.key(), old.key());
        }));
    }

    private static Map<String, Method> methodsOf(Map<String, Map<String, Method>> groups, String group) {
        return groups.getOrDefault(group, Map.of());
    }

    /** Those that are not among {@code others}, with their methods by name. */
    private static Map<String, Map<String, Method>> byGroup(List<Method> methods, Set<String> others) {
        Map<String, Map<String, Method>> groups = new TreeMap<>();
        for (Method method : methods)
            if (!others.contains(method.group()))
                groups.computeIfAbsent(method.group(), group -> new TreeMap<>()).put(method.name(), method);
        return groups;
    }

    private static double sharedMethods(Map<String, Method> one, Map<String, Method> other) {
        Set<String> shared = new HashSet<>(one.keySet());
        shared.retainAll(other.keySet());
        if (shared.size() < LEAST_METHODS) return 0;
        return (double) shared.size() / (one.size() + other.size() - shared.size());
    }

    /** Of one class, in each. */
    private void methods(List<Method> fresh, List<Method> gone) {
        Map<String, Map<String, Method>> came = byGroup(fresh, Set.of());
        Map<String, Map<String, Method>> went = byGroup(gone, Set.of());
        came.forEach((group, methods) -> {
            Map<String, Method> old = methodsOf(went, group);
            Map<String, String> best =
                    best(methods.keySet(), old.keySet(), RenamedTests::sharedWords, LEAST_SHARED_WORDS);
            best.forEach((now, before) -> {
                Method method = methods.get(now);
                Method earlierOne = old.get(before);
                if (method != null && earlierOne != null) earlier.putIfAbsent(method.key(), earlierOne.key());
            });
        });
    }

    /** Dice's coefficient of their words. */
    private static double sharedWords(String one, String other) {
        List<String> words = words(one);
        List<String> left = words(other);
        int all = words.size() + left.size();
        int shared = 0;
        for (String word : words) if (left.remove(word)) shared++;
        return all == 0 ? 0 : 2.0 * shared / all;
    }

    private static List<String> words(String name) {
        List<String> words = new ArrayList<>();
        Matcher matcher = WORD.matcher(name);
        while (matcher.find()) words.add(matcher.group().toLowerCase(Locale.ROOT));
        return words;
    }

    @FunctionalInterface
    private interface Likeness {
        double of(String one, String other);
    }

    /** Pairs in which each is by far the likest of the other. */
    private static Map<String, String> best(Set<String> some, Set<String> others, Likeness likeness, double least) {
        Map<String, String> pairs = new TreeMap<>();
        if ((long) some.size() * others.size() > MAX_PAIRS) return pairs;
        for (String one : some) {
            String other = likest(one, others, likeness, least);
            if (other == null) continue;
            String back = likest(other, some, (a, b) -> likeness.of(b, a), least);
            if (one.equals(back)) pairs.put(one, other);
        }
        return pairs;
    }

    private static final int MAX_PAIRS = 250_000;

    private static @Nullable String likest(String one, Set<String> others, Likeness likeness, double least) {
        double best = 0;
        boolean isAlone = true;
        String found = null;
        for (String other : others) {
            double alike = likeness.of(one, other);
            if (alike < least || alike < best) continue;
            isAlone = alike > best;
            best = alike;
            found = other;
        }
        return isAlone ? found : null;
    }
}
