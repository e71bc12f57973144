package dev.verbale.http.difficult;

import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;

/** What one who stands before another object does not hand on: methods of its types that neither it nor a wrapping parent declares. */
public final class HandedOn {

    private HandedOn() {}

    /**
     * @param wrapper the class of whoever stands before
     * @param type what it stands for
     * @param parents superclasses that hand on by themselves
     */
    public static List<String> missing(Class<?> wrapper, Class<?> type, Set<Class<?>> parents) {
        List<String> missing = new ArrayList<>();
        for (Method method : type.getMethods()) {
            if (method.getDeclaringClass() == Object.class || isNoneOfIts(method.getModifiers())) continue;
            if (!isDeclared(wrapper, method, parents)) missing.add(method.getName() + parameters(method));
        }
        return missing.stream().distinct().sorted().toList();
    }

    private static boolean isNoneOfIts(int modifiers) {
        return Modifier.isStatic(modifiers) || Modifier.isFinal(modifiers);
    }

    private static boolean isDeclared(Class<?> wrapper, Method method, Set<Class<?>> parents) {
        for (Class<?> one = wrapper; one != null; one = one.getSuperclass()) {
            boolean counts = one == wrapper || parents.contains(one) || one.getPackage() == wrapper.getPackage();
            if (counts && Arrays.stream(one.getDeclaredMethods()).anyMatch(own -> isSame(own, method))) return true;
        }
        return false;
    }

    private static boolean isSame(Method own, Method method) {
        return own.getName().equals(method.getName())
                && Arrays.equals(own.getParameterTypes(), method.getParameterTypes());
    }

    private static String parameters(Method method) {
        return Arrays.stream(method.getParameterTypes())
                .map(Class::getSimpleName)
                .toList()
                .toString();
    }
}
