package dev.verbale.selenium;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.support.events.WebDriverListener;

/**
 * Hears every call of a watched driver. Public because Selenium calls it by reflection, and for nobody else.
 *
 * @since 0.2.0
 */
public final class UseListener implements WebDriverListener {

    private final WebDriver driver;
    private final DriverSession session;
    private final Actions actions;

    /** Closes the last window now; a page may hold it back. */
    private volatile @Nullable Thread closing;

    UseListener(WebDriver driver, DriverSession session, Actions actions) {
        this.driver = driver;
        this.session = session;
        this.actions = actions;
    }

    @Override
    public void beforeAnyCall(Object target, Method method, Object[] args) {
        session.used();
        String name = method.getName();
        if (target instanceof WebDriver && name.equals("quit")) session.closes();
        if (isClose(target, method) && session.isLastWindow()) {
            closing = Thread.currentThread();
            session.keepsLastSight();
        }
        actions.begins(target, name, args == null ? new Object[0] : args);
    }

    @Override
    public void afterAnyCall(Object target, Method method, Object[] args, @Nullable Object result) {
        if (isClose(target, method) && Thread.currentThread().equals(closing)) session.isOver();
        actions.ended(target, method.getName(), args == null ? new Object[0] : args, result);
        if (target instanceof WebDriver.TargetLocator
                && method.getName().toLowerCase(java.util.Locale.ROOT).endsWith("window"))
            session.currentWindow(driver);
    }

    private static boolean isClose(Object target, Method method) {
        return target instanceof WebDriver && method.getName().equals("close");
    }

    @Override
    public void onError(Object target, Method method, Object[] args, InvocationTargetException e) {
        closing = null;
        actions.threw(e.getCause() == null ? e : e.getCause());
    }
}
