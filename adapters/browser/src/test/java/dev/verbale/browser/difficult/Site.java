package dev.verbale.browser.difficult;

import static java.nio.charset.StandardCharsets.UTF_8;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.Base64;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;

/** A site that does to a browser whatever sites do. */
public final class Site implements AutoCloseable {

    private static final String SCRIPT_OF_WORKER = "self.addEventListener('install', e => self.skipWaiting());"
            + "self.addEventListener('activate', e => e.waitUntil(clients.claim()));"
            + "self.addEventListener('fetch', e => { if (e.request.url.endsWith('/from-worker'))"
            + " e.respondWith(new Response('sown by the worker')); });";

    private static final Map<String, String> PAGES = Map.ofEntries(
            Map.entry(
                    "/",
                    "<title>Garden</title><h1>Garden</h1><input id=name><button id=late onclick=\"setTimeout(() =>"
                            + " document.body.append(Object.assign(document.createElement('p'),{id:'ripe',textContent:'ripe'})),150)\">l</button>"),
            Map.entry(
                    "/windows",
                    "<title>Windows</title><button id=tab onclick=\"window.open('/other')\">t</button>"
                            + "<button id=popup onclick=\"window.w=window.open('/other','shed','width=300,height=200')\">p</button>"
                            + "<button id=brief onclick=\"window.open('/closes-itself','brief','width=300,height=200')\">b</button>"
                            + "<button id=many onclick=\"for(let i=0;i<5;i++)window.open('/other?'+i)\">m</button>"
                            + "<button id=empty onclick=\"window.open('')\">e</button>"
                            + "<button id=severed onclick=\"window.open('/other','','noopener')\">n</button>"
                            + "<button id=close-it onclick=\"w.close()\">c</button>"
                            + "<a id=link target=_blank href=/other>a</a>"
                            + "<form target=_blank method=post action=/sent><input name=seed value=kale><button id=send>s</button></form>"),
            Map.entry(
                    "/other",
                    "<title>Other</title><h1>Other</h1><button id=close onclick='window.close()'>c</button><button id=ask onclick=\"alert('in the popup')\">a</button>"),
            Map.entry("/closes-itself", "<title>Brief</title><script>setTimeout(() => window.close(), 30)</script>"),
            Map.entry(
                    "/frames",
                    "<title>Frames</title><iframe id=inner src=/outer-frame></iframe><iframe id=gone srcdoc='<p id=g>gone</p>'></iframe>"),
            Map.entry("/outer-frame", "<p id=o>outer</p><iframe id=innermost src=/inner-frame></iframe>"),
            Map.entry(
                    "/inner-frame",
                    "<p id=i>inner</p><button id=drop onclick=\"parent.parent.document.getElementById('inner').remove()\">d</button>"
                            + "<button id=ask onclick=\"alert('in the frame')\">a</button>"),
            Map.entry(
                    "/dialogs",
                    "<title>Dialogs</title><button id=alert onclick=\"alert('weeds');document.title='seen'\">a</button>"
                            + "<button id=confirm onclick=\"document.title=confirm('pull?')\">c</button>"
                            + "<button id=prompt onclick=\"document.title=prompt('how many?')\">p</button>"
                            + "<button id=later onclick=\"setTimeout(() => alert('late'),80)\">l</button>"
                            + "<button id=twice onclick=\"alert('one');alert('two')\">2</button>"),
            Map.entry("/asks-at-once", "<title>At once</title><script>onload = () => alert('welcome')</script>"),
            Map.entry(
                    "/holds-back",
                    "<title>Holds back</title><input id=field><script>onbeforeunload = e => { e.preventDefault(); return 'stay'; }</script>"),
            Map.entry(
                    "/files",
                    "<title>Files</title><form method=post enctype=multipart/form-data action=/sent><input type=file id=file name=file><button id=send>s</button></form>"
                            + "<a id=load href=/seeds.csv download>d</a>"),
            Map.entry(
                    "/worker",
                    "<title>Worker</title><script>navigator.serviceWorker.register('/worker.js').then(() => navigator.serviceWorker.ready)"
                            + ".then(() => navigator.serviceWorker.controller || new Promise(r => navigator.serviceWorker.oncontrollerchange = r))"
                            + ".then(() => fetch('/from-worker')).then(r => r.text()).then(t => document.title = t)</script>"),
            Map.entry(
                    "/restless",
                    "<title>Restless</title><button id=reload onclick='location.reload()'>r</button><button id=away onclick=\"location='/'\">a</button>"
                            + "<button id=remove onclick='this.remove()'>x</button><div id=old>old</div>"
                            + "<button id=renew onclick=\"old.replaceWith(Object.assign(document.createElement('div'),{id:'old',textContent:'new'}))\">n</button>"
                            + "<button id=close onclick='window.close()'>c</button>"),
            Map.entry(
                    "/actions",
                    "<title>Actions</title><style>div{width:60px;height:40px}</style><div id=from draggable=true>f</div><div id=to>t</div><input id=field>"
                            + "<script>let said=[];for(const n of ['mousedown','mouseup','dblclick','contextmenu','keydown','wheel'])"
                            + "addEventListener(n,e=>{said.push(n+(e.key||''));e.preventDefault&&n=='contextmenu'&&e.preventDefault()},{passive:false});</script>"),
            Map.entry(
                    "/shadow",
                    "<title>Shadow</title><div id=host></div><script>const r=host.attachShadow({mode:'open'});r.innerHTML='<button id=in>in</button>';"
                            + "r.getElementById('in').onclick=()=>document.title='clicked'</script>"),
            Map.entry(
                    "/covered",
                    "<title>Covered</title><button id=under style='position:absolute;left:0;top:0'>u</button><div style='position:absolute;left:0;top:0;width:200px;height:100px'></div>"
                            + "<button id=hidden style='display:none'>h</button><button id=off disabled style='position:absolute;top:150px'>o</button>"
                            + "<select id=list style='position:absolute;top:180px'><option>Monday<option>Friday</select>"),
            Map.entry("/worker.js", SCRIPT_OF_WORKER));

    private final HttpServer server;
    private final CountDownLatch closing = new CountDownLatch(1);

    public Site() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newCachedThreadPool(work -> {
            var thread = new Thread(work, "site");
            thread.setDaemon(true);
            return thread;
        }));
        server.createContext("/", this::answer);
        server.start();
    }

    /** The address of {@code path}. */
    public String at(String path) {
        return "http://127.0.0.1:" + server.getAddress().getPort() + path;
    }

    /** The same by another name, which is another site to a browser. */
    public String elsewhere(String path) {
        return "http://localhost:" + server.getAddress().getPort() + path;
    }

    private void answer(HttpExchange exchange) throws IOException {
        String path = exchange.getRequestURI().getPath();
        switch (path) {
            case "/sent" -> send(exchange, "<title>Sent</title><p id=size>" + size(exchange) + "</p>");
            case "/cross" ->
                send(exchange, "<title>Cross</title><iframe id=far src=" + elsewhere("/inner-frame") + ">");
            case "/private" -> secured(exchange);
            case "/moved" -> redirect(exchange, "/moved-again");
            case "/moved-again" -> redirect(exchange, "/");
            case "/round" -> redirect(exchange, "/round");
            case "/slow" -> {
                await();
                send(exchange, "<title>Slow</title>");
            }
            case "/half" -> send(exchange, "<title>Half</title><p id=there>there</p><img src=/slow>");
            case "/seeds.csv" -> {
                exchange.getResponseHeaders().add("Content-Disposition", "attachment; filename=seeds.csv");
                send(exchange, "seed,count\nkale,3\n");
            }
            default -> send(exchange, PAGES.getOrDefault(path, "<title>Nothing</title>"));
        }
    }

    /** Until the site closes: nobody waits so long. */
    private void await() {
        try {
            closing.await();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    private static int size(HttpExchange exchange) throws IOException {
        return exchange.getRequestBody().readAllBytes().length;
    }

    private static void secured(HttpExchange exchange) throws IOException {
        String expected = "Basic " + Base64.getEncoder().encodeToString("ada:watering".getBytes(UTF_8));
        if (expected.equals(exchange.getRequestHeaders().getFirst("Authorization"))) {
            send(exchange, "<title>Private</title>");
            return;
        }
        exchange.getResponseHeaders().add("WWW-Authenticate", "Basic realm=shed");
        exchange.sendResponseHeaders(401, -1);
        exchange.close();
    }

    private static void redirect(HttpExchange exchange, String to) throws IOException {
        exchange.getResponseHeaders().add("Location", to);
        exchange.sendResponseHeaders(302, -1);
        exchange.close();
    }

    private static void send(HttpExchange exchange, String text) throws IOException {
        String path = exchange.getRequestURI().getPath();
        exchange.getResponseHeaders()
                .add("Content-Type", path.endsWith(".js") ? "text/javascript" : "text/html; charset=utf-8");
        byte[] body = text.getBytes(UTF_8);
        exchange.sendResponseHeaders(200, body.length);
        exchange.getResponseBody().write(body);
        exchange.close();
    }

    @Override
    public void close() {
        closing.countDown();
        server.stop(0);
    }
}
