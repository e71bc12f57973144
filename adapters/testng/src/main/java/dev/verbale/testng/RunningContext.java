package dev.verbale.testng;

import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.SharedContainer;
import dev.verbale.spi.TestDescriptor;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import org.testng.IClass;
import org.testng.ITestContext;
import org.testng.ITestNGMethod;

/** A test of a suite while it runs: its containers, what is open in it, and what failed so far that others may depend on. */
final class RunningContext {

    final ITestContext context;

    /** Tests that began, on whatever thread. */
    final Set<OpenTest> open = ConcurrentHashMap.newKeySet();

    private final AdapterRecorder recorder;
    private final RunningSuite suite;
    private final Map<Class<?>, SharedContainer> classes = new LinkedHashMap<>();
    private final Map<String, Integer> invocationCounts = new HashMap<>();
    private final Map<String, AtomicInteger> invocations = new ConcurrentHashMap<>();
    private final Map<String, Integer> skipped = new ConcurrentHashMap<>();
    private final Map<String, String> failed = new ConcurrentHashMap<>();
    private @Nullable SharedContainer own;

    RunningContext(AdapterRecorder recorder, RunningSuite suite, ITestContext context) {
        this.recorder = recorder;
        this.suite = suite;
        this.context = context;
        // asked here, for a method in a pool of threads says of each of its invocations that it is the only one
        for (ITestNGMethod method : context.getAllTestMethods())
            if (method.getInvocationCount() > 1)
                invocationCounts.put(Names.key(context, method), method.getInvocationCount());
    }

    /** Its own container. Of one that nobody wrote there is one only where somebody has to hold a fixture. */
    synchronized SharedContainer own() {
        SharedContainer there = own;
        if (there != null) return there;
        String key = Names.key(context);
        var begun = SharedContainer.start(
                recorder,
                Names.isWritten(context.getSuite()) ? suite.own().scope() : suite.scope(),
                TestDescriptor.of(key.isEmpty() ? Names.of(context) : key, Names.of(context))
                        .build());
        own = begun;
        return begun;
    }

    synchronized SharedContainer of(IClass type) {
        SharedContainer there = classes.get(type.getRealClass());
        if (there != null) return there;
        var begun = SharedContainer.start(
                recorder,
                scope(),
                TestDescriptor.of(Names.key(context, type), Names.of(type))
                        .className(type.getRealClass().getName())
                        .build());
        classes.put(type.getRealClass(), begun);
        return begun;
    }

    private synchronized Scope scope() {
        if (own != null || Names.isWritten(context)) return own().scope();
        return Names.isWritten(context.getSuite()) ? suite.own().scope() : suite.scope();
    }

    /** Where there are several invocations of a method without data: which one it is, in the order of their arrival. */
    int invocation(String key) {
        if (!invocationCounts.containsKey(key)) return 0;
        return invocations.computeIfAbsent(key, k -> new AtomicInteger()).incrementAndGet();
    }

    /** How many tests with this key were skipped before they began, this one included. */
    int skipped(String key) {
        return skipped.merge(key, 1, Integer::sum);
    }

    /** {@code method} did not do what it should, in the test {@code key}; the first one counts. */
    void failed(ITestNGMethod method, String key) {
        failed.putIfAbsent(Names.key(context, method), key); // of this object
        failed.putIfAbsent(method.getQualifiedName(), key); // of any
    }

    /** The key of the test that failed of {@code method}, where one did. */
    @Nullable
    String failed(ITestNGMethod method) {
        return failed.get(Names.key(context, method));
    }

    /** The key of the test that failed of the method with that name, in whatever object, where one did. */
    @Nullable
    String failed(String qualifiedName) {
        return failed.get(qualifiedName);
    }

    /** The container that one of the fixtures broke which stand around {@code type}, where there is one. */
    synchronized @Nullable SharedContainer broken(IClass type) {
        SharedContainer nearest = classes.get(type.getRealClass());
        if (nearest != null && nearest.brokenBy() != null) return nearest;
        for (Map.Entry<Class<?>, SharedContainer> one : classes.entrySet())
            if (one.getValue().brokenBy() != null && one.getKey().isAssignableFrom(type.getRealClass()))
                return one.getValue();
        if (own != null && own.brokenBy() != null) return own;
        return suite.broken();
    }

    synchronized void end() {
        classes.values().forEach(SharedContainer::end);
        classes.clear();
        if (own != null) own.end();
    }
}
