package dev.verbale.testng;

import java.lang.reflect.Method;
import java.util.Arrays;
import java.util.Set;
import java.util.stream.Collectors;
import org.testng.IClass;
import org.testng.ISuite;
import org.testng.ITestContext;
import org.testng.ITestNGMethod;

/**
 * The identity of what TestNG runs, the same in every run and on every machine:
 * {@code Orto/Chrome/dev.orto.BedTest[2].waters(java.lang.String, int)#3} is the third row of data for the second object that a
 * factory made, in the test {@code Chrome} of the suite {@code Orto}.
 *
 * <p>Names that a build tool or an editor gives to a suite that nobody wrote are left out: a test is the same wherever it is started.
 */
final class Names {

    private static final Set<String> GENERATED_SUITES =
            Set.of("Command line suite", "Default Suite", "Default suite", "Surefire suite", "TestSuite");
    private static final Set<String> GENERATED_TESTS =
            Set.of("Command line test", "Default Test", "Default test", "Surefire test");

    private Names() {}

    /** A rerun of what failed has a name of its own, and is the same suite. */
    static String of(ISuite suite) {
        String name = String.valueOf(suite.getName());
        boolean rerun = name.startsWith("Failed suite [") && name.endsWith("]");
        return rerun ? name.substring("Failed suite [".length(), name.length() - 1) : name;
    }

    static String of(ITestContext test) {
        String name = String.valueOf(test.getName());
        return name.endsWith("(failed)") ? name.substring(0, name.length() - "(failed)".length()) : name;
    }

    static boolean isWritten(ISuite suite) {
        return !GENERATED_SUITES.contains(of(suite));
    }

    /** The only test of a suite that nobody wrote was not written either. */
    static boolean isWritten(ITestContext test) {
        if (GENERATED_TESTS.contains(of(test))) return false;
        return isWritten(test.getSuite())
                || test.getSuite().getXmlSuite().getTests().size() > 1;
    }

    static String key(ITestContext test) {
        String suite = isWritten(test.getSuite()) ? of(test.getSuite()) : "";
        String own = isWritten(test) ? of(test) : "";
        return suite + (suite.isEmpty() || own.isEmpty() ? "" : "/") + own;
    }

    static String key(ITestContext test, IClass type) {
        String around = key(test);
        return (around.isEmpty() ? "" : around + "/") + type.getRealClass().getName();
    }

    /** Without the row of data. */
    static String key(ITestContext test, ITestNGMethod method) {
        return key(test, method.getTestClass()) + MadeObjects.which(method) + "." + method.getMethodName() + "("
                + types(method) + ")";
    }

    static String of(IClass type) {
        String name = type.getRealClass().getName();
        return name.substring(name.lastIndexOf('.') + 1).replace('$', '.');
    }

    private static String types(ITestNGMethod method) {
        Method java = method.getConstructorOrMethod().getMethod();
        return Arrays.stream(java.getParameterTypes()).map(Class::getTypeName).collect(Collectors.joining(", "));
    }
}
