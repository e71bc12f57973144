package dev.verbale.steps;

import java.lang.instrument.ClassFileTransformer;
import java.lang.instrument.Instrumentation;
import java.lang.reflect.Method;
import java.security.ProtectionDomain;
import java.util.Optional;
import net.bytebuddy.ByteBuddy;
import net.bytebuddy.asm.Advice;
import net.bytebuddy.description.method.MethodDescription;
import net.bytebuddy.description.type.TypeDescription;
import net.bytebuddy.dynamic.ClassFileLocator;
import net.bytebuddy.matcher.ElementMatcher;
import net.bytebuddy.matcher.ElementMatchers;
import net.bytebuddy.pool.TypePool;
import org.jspecify.annotations.Nullable;

/**
 * Makes steps out of the methods of whole packages, final classes and calls on {@code this} too:
 *
 * <pre>java -javaagent:verbale-steps.jar=dev.orto.pages,dev.orto.clients:public ...</pre>
 *
 * <p>The argument names packages; those below count with them. Their {@link StepMethod} methods become steps, and behind
 * {@code :public} every other public method too, called by its name in plain words. Whatever cannot be a step method works as it
 * did, and a warning says why.
 *
 * @since 0.2.0
 */
public final class StepAgent {

    private StepAgent() {}

    /** Called by the JVM before {@code main}; {@code argument} stands behind the {@code =}, or is null. */
    public static void premain(@Nullable String argument, Instrumentation jvm) {
        try {
            Optional<StepPackages> packages = StepPackages.parsed(argument);
            if (packages.isEmpty())
                warn("it was given no package, and records no steps. Write "
                        + "-javaagent:verbale-steps.jar=PACKAGE, or PACKAGE:public for all public methods");
            else install(packages.get(), jvm);
        } catch (RuntimeException | Error broken) {
            warn("it could not start, and records no steps: " + broken);
        }
    }

    private static void install(StepPackages packages, Instrumentation jvm) {
        StepMethodRecorder.agentRecords(packages);
        // Byte Buddy's own builder of agents makes newer JVMs print warnings, for means that nothing here needs.
        jvm.addTransformer(new ClassFileTransformer() {
            @Override
            public byte @Nullable [] transform(
                    @Nullable ClassLoader loader,
                    @Nullable String name,
                    @Nullable Class<?> redefined,
                    @Nullable ProtectionDomain domain,
                    byte[] classFile) {
                String type = name == null ? "" : name.replace('/', '.');
                return packages.holds(type) ? recordingProxy(packages, type, loader, classFile) : null;
            }
        });
    }

    private static byte @Nullable [] recordingProxy(
            StepPackages packages, String name, @Nullable ClassLoader loader, byte[] classFile) {
        try {
            var files = new ClassFileLocator.Compound(
                    ClassFileLocator.Simple.of(name, classFile), ClassFileLocator.ForClassLoader.of(loader));
            TypeDescription type = TypePool.Default.of(files).describe(name).resolve();
            return new ByteBuddy()
                    .redefine(type, files)
                    .visit(Advice.to(Around.class).on(stepMethod(packages, type)))
                    .make()
                    .getBytes();
        } catch (RuntimeException | LinkageError impossible) {
            warn(name + " has no steps of its methods: " + impossible);
            return null;
        }
    }

    private static ElementMatcher<MethodDescription> stepMethod(StepPackages packages, TypeDescription type) {
        ElementMatcher.Junction<MethodDescription> annotated = ElementMatchers.isAnnotatedWith(StepMethod.class);
        if (packages.recordsPublic(type.getName()))
            annotated = annotated.or(ElementMatchers.isPublic()
                    .and(ElementMatchers.not(ElementMatchers.isToString()
                            .or(ElementMatchers.isEquals())
                            .or(ElementMatchers.isHashCode()))));
        return ElementMatchers.<MethodDescription>isMethod()
                .and(ElementMatchers.not(ElementMatchers.isSynthetic()))
                .and(ElementMatchers.not(ElementMatchers.isAbstract()))
                .and(annotated);
    }

    private static void warn(String text) {
        System.getLogger("dev.verbale").log(System.Logger.Level.WARNING, "Verbale's step agent: " + text + ".");
    }

    /** Copied into the step methods: what it names must be public, and what it throws must not get out. */
    public static final class Around {

        private Around() {}

        /** Gives the step, or null where there is none. */
        @Advice.OnMethodEnter(suppress = Throwable.class)
        public static @Nullable Object enter(@Advice.Origin Method method, @Advice.AllArguments Object[] arguments) {
            return StepMethodRecorder.begin(method, arguments);
        }

        /** Ends what {@link #enter} gave. */
        @Advice.OnMethodExit(onThrowable = Throwable.class, suppress = Throwable.class)
        public static void exit(@Advice.Enter @Nullable Object step, @Advice.Thrown @Nullable Throwable thrown) {
            StepMethodRecorder.end(step, thrown);
        }
    }
}
