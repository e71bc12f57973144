package dev.verbale.testng;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.WeakHashMap;
import org.testng.ITestClass;
import org.testng.ITestNGMethod;

/** Tells the objects of one class apart that a factory made, by the order in which it made them: the same in every run. */
final class MadeObjects {

    private static final Map<ITestClass, IdentityHashMap<Object, String>> KNOWN =
            Collections.synchronizedMap(new WeakHashMap<>());

    private MadeObjects() {}

    /**
     * Which of them {@code method} is of: {@code [2]} the second one, or the one of the second row of the factory's data;
     * {@code [2.1]} the first one of that row, where rows make several; empty where there is only one.
     */
    static String which(ITestNGMethod method) {
        IdentityHashMap<Object, String> numbers = KNOWN.computeIfAbsent(method.getTestClass(), MadeObjects::numbers);
        int row = row(method);
        return numbers.getOrDefault(method.getInstance(), row == 0 ? "" : "[" + row + "]");
    }

    @SuppressWarnings("deprecation") // what replaced it is not there in older versions
    private static IdentityHashMap<Object, String> numbers(ITestClass type) {
        IdentityHashMap<Object, String> numbers = new IdentityHashMap<>();
        Object[] made = type.getInstances(false);
        if (made == null || made.length < 2) return numbers;
        List<Object> all = new ArrayList<>();
        for (Object one : made) all.add(object(one));
        IdentityHashMap<Object, Integer> rows = new IdentityHashMap<>();
        for (ITestNGMethod one : type.getTestMethods()) rows.putIfAbsent(one.getInstance(), row(one));
        Map<Integer, Integer> sizes = new TreeMap<>();
        for (Object one : all) sizes.merge(rows.getOrDefault(one, 0), 1, Integer::sum);
        Map<Integer, Integer> within = new TreeMap<>();
        for (Object one : all) {
            int row = rows.getOrDefault(one, 0);
            int position = within.merge(row, 1, Integer::sum);
            if (sizes.size() == 1) numbers.put(one, "[" + position + "]");
            else numbers.put(one, sizes.getOrDefault(row, 0) == 1 ? "[" + row + "]" : "[" + row + "." + position + "]");
        }
        return numbers;
    }

    /** What a factory made is given out by newer versions in a wrapping of their own, whose type each of them calls otherwise. */
    private static Object object(Object made) {
        if (!made.getClass().getName().startsWith("org.testng.internal.")) return made;
        for (Class<?> type : made.getClass().getInterfaces()) {
            try {
                Object object = type.getMethod("getInstance").invoke(made);
                if (object != null) return object;
            } catch (ReflectiveOperationException | RuntimeException other) {
                // another interface may have it
            }
        }
        return made;
    }

    /** Newer versions say which row of a factory's data made its object, from 1; 0 where they do not. */
    private static int row(ITestNGMethod method) {
        try {
            return method.getFactoryMethodParamsInfo() == null
                    ? 0
                    : method.getFactoryMethodParamsInfo().getIndex() + 1;
        } catch (LinkageError older) {
            return 0;
        }
    }
}
