package dev.verbale.steps;

import dev.verbale.Verbale;
import java.lang.invoke.MethodHandles;
import java.lang.reflect.Modifier;
import net.bytebuddy.ByteBuddy;
import net.bytebuddy.TypeCache;
import net.bytebuddy.description.modifier.Visibility;
import net.bytebuddy.dynamic.loading.ClassLoadingStrategy;
import net.bytebuddy.dynamic.scaffold.subclass.ConstructorStrategy;
import net.bytebuddy.implementation.MethodDelegation;
import net.bytebuddy.matcher.ElementMatchers;
import org.objenesis.ObjenesisStd;

/**
 * Makes objects tell what is called on them.
 *
 * <pre>{@code
 * RotaPage page = StepMethods.of(new RotaPage(driver)); // its @StepMethod methods are steps now
 * }</pre>
 *
 * @since 0.2.0
 */
public final class StepMethods {

    private static final String ORIGINAL = "verbale$original";
    private static final TypeCache<Class<?>> TYPES = new TypeCache<>(TypeCache.Sort.WEAK);
    private static final ObjenesisStd MAKER = new ObjenesisStd();

    private StepMethods() {}

    /**
     * An object of a subclass of {@code original}'s class that does what {@code original} does, and whose {@link StepMethod}
     * methods are steps. Calls that {@code original} makes on itself are its own affair and no steps.
     *
     * <p>Where there can be no subclass, since the class or one of its step methods is final or private, it gives
     * {@code original} back and says so in a log line: a test must not fail because its steps cannot be recorded.
     */
    @SuppressWarnings("unchecked") // the class that is made is a subclass of the original's
    public static <T> T of(T original) {
        if (original == null) return original;
        Class<?> type = original.getClass();
        if (StepMethodRecorder.isRecordedByAgent(type)) return original;
        if (Modifier.isFinal(type.getModifiers())) return silent(original, "the class is final");
        try {
            Class<?> recordingProxy = TYPES.findOrInsert(type.getClassLoader(), type, () -> subclass(type), TYPES);
            Object recorder = MAKER.newInstance(recordingProxy);
            var field = recordingProxy.getDeclaredField(ORIGINAL);
            field.set(recorder, original);
            return (T) recorder;
        } catch (ReflectiveOperationException | RuntimeException | LinkageError impossible) {
            return silent(original, impossible.toString());
        }
    }

    private static <T> T silent(T original, String why) {
        Verbale.log("{} has no steps of its methods: {}", original.getClass().getName(), why);
        return original;
    }

    /** In the package and the loader of the original, so that it may call what is visible there only. */
    private static Class<?> subclass(Class<?> type) {
        return new ByteBuddy()
                .subclass(type, ConstructorStrategy.Default.NO_CONSTRUCTORS)
                .name(type.getName() + "$RecordingProxy")
                .defineField(ORIGINAL, Object.class, Visibility.PUBLIC)
                .method(ElementMatchers.isVirtual().and(ElementMatchers.not(ElementMatchers.isFinalizer())))
                .intercept(MethodDelegation.to(StepMethodRecorder.class))
                .make()
                .load(type.getClassLoader(), strategy(type))
                .getLoaded();
    }

    private static ClassLoadingStrategy<ClassLoader> strategy(Class<?> type) {
        try {
            return ClassLoadingStrategy.UsingLookup.of(MethodHandles.privateLookupIn(type, MethodHandles.lookup()));
        } catch (IllegalAccessException closed) {
            throw new IllegalStateException(
                    type.getPackageName() + " is not open to " + StepMethods.class.getModule(), closed);
        }
    }
}
