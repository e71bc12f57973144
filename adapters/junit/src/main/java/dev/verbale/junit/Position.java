package dev.verbale.junit;

import dev.verbale.spi.TestAnnotations;
import dev.verbale.spi.TestDescriptor;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.platform.engine.TestSource;
import org.junit.platform.engine.TestTag;
import org.junit.platform.engine.UniqueId;
import org.junit.platform.engine.support.descriptor.ClassSource;
import org.junit.platform.engine.support.descriptor.MethodSource;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.TestPlan;

/**
 * What a test or container is and hands down to all below it: made of what lies around it, so that each of ten thousand
 * invocations of a method does not ask for the method again.
 *
 * @param id of the platform; null for nowhere
 * @param key as {@link TestKey} folds it
 * @param name its own, without the names around it
 * @param isMethod whether it is a method, whose invocations are named after it
 * @param className of itself or the nearest around it
 * @param methodName of itself or the nearest around it
 * @param method that method, where it is one
 * @param annotations of that method
 */
record Position(
        @Nullable UniqueId id,
        String key,
        String name,
        boolean isMethod,
        @Nullable String className,
        @Nullable String methodName,
        @Nullable MethodSource method,
        TestAnnotations annotations) {

    private static final Position NOWHERE = new Position(null, "", "", false, null, null, null, TestAnnotations.NONE);

    /** The position of what has nothing open around it, as the tests of a skipped class. */
    static Position of(TestIdentifier id, TestPlan plan) {
        Optional<TestIdentifier> parent = plan.getParent(id);
        return (parent.isPresent() ? of(parent.get(), plan) : NOWHERE).within(id);
    }

    /** The position of {@code inner}, which lies in here. */
    Position within(TestIdentifier inner) {
        UniqueId unique = inner.getUniqueIdObject();
        String folded = id == null
                        || !unique.hasPrefix(id)
                        || unique.getSegments().size() != id.getSegments().size() + 1
                ? TestKey.folded(unique)
                : TestKey.folded(key, unique.getLastSegment(), unique);
        TestSource source = inner.getSource().orElse(null);
        if (source instanceof MethodSource of)
            return new Position(
                    unique,
                    folded,
                    withoutParameters(inner.getDisplayName(), of),
                    true,
                    of.getClassName(),
                    of.getMethodName(),
                    of,
                    of.equals(method) ? annotations : annotations(of)); // an invocation has those of its method
        String type = source instanceof ClassSource ofClass ? ofClass.getClassName() : className;
        return new Position(unique, folded, inner.getDisplayName(), false, type, methodName, null, annotations);
    }

    /** Whether this is called {@code around} with values in it, as Spock makes of {@code a bed has #crop}. */
    private boolean isFilledIn(String around) {
        int value = around.indexOf('#');
        return name.startsWith(value > 0 ? around.substring(0, value) : around);
    }

    private static TestAnnotations annotations(MethodSource source) {
        try {
            return TestAnnotations.of(source.getJavaMethod());
        } catch (RuntimeException | LinkageError unloadable) {
            return TestAnnotations.NONE;
        }
    }

    /** {@code id}, whose position this is and which lies in {@code outer}, in the recorder's words. */
    TestDescriptor descriptor(TestIdentifier id, @Nullable Position outer) {
        // "[2] Basil" says nothing alone
        String around = outer != null && outer.isMethod ? outer.name : null;
        boolean isRow = id.isTest() && around != null && !isFilledIn(around);
        String called = isRow ? around + " " + name : name;
        String method = around == null ? name : around;
        return TestDescriptor.of(TestKey.of(id.getUniqueIdObject(), key, method), called)
                .className(className)
                .methodName(methodName)
                .tags(tags(id.getTags()))
                .build();
    }

    /** Without the parameter list that name generators put behind a method's name: to a reader it is noise. */
    private static String withoutParameters(String name, MethodSource method) {
        if (!name.endsWith(")")) return name;
        String list = "(" + simpleNames(method.getMethodParameterTypes()) + ")";
        if (!name.endsWith(list)) return name;
        String plain = name.substring(0, name.length() - list.length()).strip();
        return plain.isEmpty() ? name : plain;
    }

    /** {@code java.lang.String, int} as {@code String, int}. */
    private static String simpleNames(@Nullable String types) {
        if (types == null || types.isEmpty()) return "";
        var names = new StringBuilder();
        for (String type : types.split(", ")) {
            if (!names.isEmpty()) names.append(", ");
            names.append(type, type.lastIndexOf('.') + 1, type.length());
        }
        return names.toString();
    }

    private static List<String> tags(Set<TestTag> tags) {
        return tags.isEmpty() ? List.of() : tags.stream().map(TestTag::getName).toList();
    }
}
