package dev.verbale.junit;

import dev.verbale.recorder.Identity;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.platform.engine.TestSource;
import org.junit.platform.engine.TestTag;
import org.junit.platform.engine.support.descriptor.ClassSource;
import org.junit.platform.engine.support.descriptor.MethodSource;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.TestPlan;

/** What the platform knows of a test or container, in the recorder's words. */
final class PlatformNames {

    private PlatformNames() {}

    static Identity identity(TestIdentifier id, TestPlan plan) {
        return new Identity(
                TestKey.of(id.getUniqueIdObject()),
                name(id, plan),
                className(id, plan),
                methodName(id, plan),
                tags(id.getTags()));
    }

    /** "[2] Basil" says nothing alone: an invocation is named after its method too. */
    private static String name(TestIdentifier id, TestPlan plan) {
        String own = plain(id);
        if (!id.isTest()) return own;
        Optional<TestIdentifier> parent = plan.getParent(id);
        boolean invocation = parent.isPresent() && methodSource(parent.get()) != null;
        return invocation ? name(parent.get(), plan) + " " + own : own;
    }

    /** Without the parameter list that name generators put behind a method's name: to a reader it is noise. */
    private static String plain(TestIdentifier id) {
        String name = id.getDisplayName();
        MethodSource method = methodSource(id);
        if (method == null) return name;
        if (!name.endsWith(")")) return name;
        String list = "(" + simpleNames(method.getMethodParameterTypes()) + ")";
        if (!name.endsWith(list)) return name;
        String plain = name.substring(0, name.length() - list.length()).strip();
        return plain.isEmpty() ? name : plain;
    }

    /** {@code java.lang.String, int} as {@code String, int}. By hand: it is asked for every invocation of a test. */
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

    private static @Nullable String className(TestIdentifier id, TestPlan plan) {
        for (Optional<TestIdentifier> one = Optional.of(id); one.isPresent(); one = plan.getParent(one.get())) {
            TestSource source = one.get().getSource().orElse(null);
            if (source instanceof MethodSource method) return method.getClassName();
            if (source instanceof ClassSource type) return type.getClassName();
        }
        return null;
    }

    private static @Nullable String methodName(TestIdentifier id, TestPlan plan) {
        for (Optional<TestIdentifier> one = Optional.of(id); one.isPresent(); one = plan.getParent(one.get())) {
            MethodSource method = methodSource(one.get());
            if (method != null) return method.getMethodName();
        }
        return null;
    }

    private static @Nullable MethodSource methodSource(TestIdentifier id) {
        return id.getSource().orElse(null) instanceof MethodSource method ? method : null;
    }
}
