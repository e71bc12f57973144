package dev.verbale.testng;

import dev.verbale.spi.AdapterRecorder;
import java.lang.reflect.Method;
import java.lang.reflect.Parameter;
import java.util.Set;
import org.testng.ITestContext;
import org.testng.ITestNGMethod;
import org.testng.ITestResult;
import org.testng.internal.TestResult;
import org.testng.xml.XmlTest;

/** The values that a test is called with: which row of a data provider they are, and what a reader sees of them. */
final class Rows {

    private static final int LONGEST_VALUE = 60;
    /** What TestNG gives itself. */
    private static final Set<Class<?>> NO_DATA =
            Set.of(ITestContext.class, XmlTest.class, ITestResult.class, Method.class);

    private Rows() {}

    /** Which row it is, from 1; 0 where it has none. */
    static int number(ITestResult result) {
        if (!isDataDriven(result.getMethod())) return 0;
        try {
            return result instanceof TestResult known ? known.getParameterIndex() + 1 : 0;
        } catch (LinkageError ofAnotherVersion) {
            return 0;
        }
    }

    private static boolean isDataDriven(ITestNGMethod method) {
        try {
            return method.isDataDriven();
        } catch (LinkageError olderVersion) {
            return method.getConstructorOrMethod().getMethod().getParameterCount() > 0;
        }
    }

    /** The values in a line; empty where there are none. */
    static String text(AdapterRecorder recorder, ITestResult result) {
        var text = new StringBuilder();
        each(result, (name, value) -> {
            if (!text.isEmpty()) text.append(", ");
            boolean secret = recorder.isSecretName(name);
            text.append(secret ? dev.verbale.Recorder.MASK : recorder.shown(value, LONGEST_VALUE));
        });
        return text.toString();
    }

    static void record(AdapterRecorder recorder, ITestResult result) {
        each(result, recorder::data);
    }

    private interface Each {
        void value(String name, Object value);
    }

    private static void each(ITestResult result, Each each) {
        Method method = result.getMethod().getConstructorOrMethod().getMethod();
        Parameter[] parameters = method.getParameters();
        Object[] values = result.getParameters();
        if (values == null) return;
        for (int i = 0; i < parameters.length && i < values.length; i++)
            if (!NO_DATA.contains(parameters[i].getType())) each.value(parameters[i].getName(), values[i]);
    }
}
