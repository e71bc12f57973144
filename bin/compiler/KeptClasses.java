import java.net.URL;
import java.net.URLClassLoader;
import java.util.Arrays;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;

/**
 * Where javac takes the classes of its plugins from, by its hidden option {@code -XDprocloader}. Without this, each of forty
 * modules loads Error Prone anew, and the JVM begins anew to compile it, which costs more than the checks themselves. Where
 * this class is not there, as in a plain {@code mvn install}, javac loads them as it always does.
 */
public final class KeptClasses extends ClassLoader {

    private static final ConcurrentMap<String, ClassLoader> KEPT = new ConcurrentHashMap<>();

    public KeptClasses(URL[] jars, ClassLoader parent) {
        super(KEPT.computeIfAbsent(Arrays.toString(jars), any -> new URLClassLoader(jars, parent)));
    }
}
