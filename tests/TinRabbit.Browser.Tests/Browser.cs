using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.RegularExpressions;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;

namespace TinRabbit.Browser.Tests;

/// <summary>The program in a folder of its own, as ./tin demo or ./tin start runs it. A demo shop is a copy of one that was made once for all tests.</summary>
public sealed class RunningShop : IDisposable
{
    private static readonly Lazy<string> DemoTemplate = new(MakeDemo);
    private readonly Process? _source;
    private readonly string[] _more = [];
    private Process _server;

    /// <param name="demo">Whether it is the demo shop, or an empty one.</param>
    /// <param name="made">Whether the program makes the demo shop itself, as at a first start.</param>
    /// <param name="connected">Whether a source of numbers is connected: the sample data, as another program.</param>
    /// <param name="other">The name of another demo shop, which the program makes itself; null for none.</param>
    public RunningShop(bool demo, bool made = false, bool connected = false, string? other = null)
    {
        if (other is not null)
            _more = ["--shop", other];
        else if (demo && !made)
            CopyShop(DemoTemplate.Value, Folder);
        if (connected)
        {
            var port = FreePort();
            _source = Begin("The market source is ready", "--serve-market", "true", "--port", port.ToString());
            _more = ["--market", $"http://127.0.0.1:{port}"];
        }

        Port = FreePort();
        _server = Run(demo);
    }

    private static int FreePort()
    {
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        return ((IPEndPoint)free.LocalEndpoint).Port;
    }

    public int Port { get; }

    public string Address => $"http://127.0.0.1:{Port}";

    /// <summary>Where its data are.</summary>
    public string Folder { get; } = Directory.CreateTempSubdirectory("tin-rabbit-browser-").FullName;

    public int ProcessId => _server.Id;

    /// <summary>Where the program is, with the front end beside it.</summary>
    public static string Program { get; } = AppContext.BaseDirectory;

    /// <summary>Ends the program as a crash would.</summary>
    public void Kill()
    {
        _server.Kill(entireProcessTree: true);
        _server.WaitForExit();
        _server.Dispose();
    }

    /// <summary>Starts it again on the same folder and port.</summary>
    public void StartAgain() => _server = Run(demo: false);

    public void Dispose()
    {
        Kill();
        if (_source is not null)
        {
            _source.Kill(entireProcessTree: true);
            _source.WaitForExit();
            _source.Dispose();
        }

        Directory.Delete(Folder, true);
    }

    private Process Run(bool demo) =>
        Begin("Tin Rabbit is ready", ["--demo", demo ? "true" : "false", "--data", Folder, "--port", Port.ToString(), .. _more]);

    private static Process Begin(string ready, params string[] options)
    {
        var app = Path.Combine(Program, "TinRabbit.Server.dll");
        if (!File.Exists(Path.Combine(Program, "wwwroot", "index.html")))
            throw new InvalidOperationException($"The front end is missing in {Program}: build the solution first.");
        var server = Process.Start(new ProcessStartInfo("dotnet", [app, .. options]) { RedirectStandardOutput = true })!;
        while (server.StandardOutput.ReadLine() is { } line)
            if (line.StartsWith(ready, StringComparison.Ordinal))
                return server;
        throw new InvalidOperationException("The server stopped before it was ready.");
    }

    private static string MakeDemo()
    {
        using var shop = new RunningShop(demo: true, made: true);
        var folder = Directory.CreateTempSubdirectory("tin-rabbit-template-").FullName;
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(folder, true);
        // A new shop takes its place whole, and the first seconds change nothing in it: a copy of the file is the whole shop.
        CopyShop(shop.Folder, folder);
        return folder;
    }

    // The database and the picture files beside it.
    private static void CopyShop(string from, string to)
    {
        File.Copy(Path.Combine(from, "tinrabbit.db"), Path.Combine(to, "tinrabbit.db"));
        var pictures = Directory.CreateDirectory(Path.Combine(to, "pictures")).FullName;
        foreach (var file in Directory.EnumerateFiles(Path.Combine(from, "pictures")))
            File.Copy(file, Path.Combine(pictures, Path.GetFileName(file)));
    }
}

/// <summary>Headless Chromium, driven as a person would: by keys and clicks, waiting for what should appear.</summary>
public sealed partial class Browser : IDisposable
{
    private readonly ChromeDriver _driver;
    private readonly string _address;

    public Browser(RunningShop shop, bool night = false)
        : this(shop.Address, night) { }

    public Browser(string address, bool night = false)
    {
        _address = address;
        var options = new ChromeOptions { BinaryLocation = OnPath("chromium") };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--disable-dev-shm-usage",
            "--window-size=1280,800",
            "--force-device-scale-factor=1"
        );
        _driver = new ChromeDriver(ChromeDriverService.CreateDefaultService(OnPath("chromedriver")), options);
        _driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new()
            {
                ["width"] = 1280,
                ["height"] = 800,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = false,
            }
        );
        _driver.ExecuteCdpCommand(
            "Browser.grantPermissions",
            new() { ["permissions"] = new[] { "clipboardReadWrite", "clipboardSanitizedWrite" } }
        );
        if (night)
            _driver.ExecuteCdpCommand(
                "Page.addScriptToEvaluateOnNewDocument",
                new() { ["source"] = "localStorage.setItem('theme', 'night-tin')" }
            );
    }

    public string Address => new Uri(_driver.Url).PathAndQuery;

    public void Go(string path) => _driver.Navigate().GoToUrl(_address + path);

    public void Reload() => _driver.Navigate().Refresh();

    /// <summary>Opens another window on the same browser and works there from now on.</summary>
    public string NewWindow()
    {
        var before = _driver.CurrentWindowHandle;
        _driver.SwitchTo().NewWindow(WindowType.Tab);
        return before;
    }

    /// <summary>Closes this window, and goes on in another.</summary>
    public void CloseWindow(string then)
    {
        _driver.Close();
        SwitchTo(then);
    }

    public void SwitchTo(string window) => _driver.SwitchTo().Window(window);

    /// <summary>Presses keys where the focus is.</summary>
    public void Press(params string[] keys)
    {
        foreach (var key in keys)
            new Actions(_driver).SendKeys(key).Perform();
    }

    public void Chord(string modifier, string key) => new Actions(_driver).KeyDown(modifier).SendKeys(key).KeyUp(modifier).Perform();

    /// <summary>Presses Alt and Shift with a key, as most shortcuts inside a text box are.</summary>
    public void AltShift(string key) =>
        new Actions(_driver).KeyDown(Keys.Alt).KeyDown(Keys.Shift).SendKeys(key).KeyUp(Keys.Shift).KeyUp(Keys.Alt).Perform();

    public IWebElement Find(string css) => Until($"{css} on the page", () => _driver.FindElements(By.CssSelector(css)).FirstOrDefault());

    public IReadOnlyList<IWebElement> All(string css) => _driver.FindElements(By.CssSelector(css));

    public IWebElement Labelled(string label) => Find($"[aria-label=\"{label}\"]");

    public void Click(string css) =>
        Until(
            $"{css} to click",
            () =>
            {
                Find(css).Click();
                return "";
            }
        );

    /// <summary>Clicks what says this, once it stays where it is: what loads above it moves it.</summary>
    public void ClickText(string text)
    {
        var (last, since) = ((System.Drawing.Point?)null, Stopwatch.StartNew());
        Until(
            $"\"{text}\" to click",
            () =>
            {
                if (
                    _driver
                        .FindElements(By.XPath($"//*[self::button or self::a][contains(normalize-space(.), \"{text}\")]"))
                        .FirstOrDefault(e => e.Displayed)
                    is not { } found
                )
                    return null;
                if (found.Location is var at && at != last)
                    (last, since) = (at, Stopwatch.StartNew());
                if (since.ElapsedMilliseconds < 150)
                    return null;
                found.Click();
                return "";
            }
        );
    }

    /// <summary>Drags the mouse across an element, from one distance to its left edge to another, in CSS pixels.</summary>
    public void Drag(string css, int from, int to)
    {
        var (over, half) = (Find(css), Find(css).Size.Width / 2);
        new Actions(_driver).MoveToElement(over, from - half, 0).ClickAndHold().MoveByOffset(to - from, 0).Release().Perform();
    }

    /// <summary>Replaces what stands in a box.</summary>
    public void Write(string label, string text)
    {
        var box = Labelled(label);
        box.Click();
        Chord(Keys.Control, "a");
        if (text.Length == 0)
            Press(Keys.Delete);
        else
            box.SendKeys(text);
    }

    public void Sees(string text) =>
        Until(
            () => $"\"{text}\" on a page that says \"{Start(Text("body"))}\"",
            () => Text("body").Contains(text, StringComparison.Ordinal) ? "" : null
        );

    private static string Start(string text) => text.Length <= 800 ? text : text[..800] + "…";

    public void Sees(string css, string text) =>
        Until(
            () => $"\"{text}\" in {css}, where stands \"{string.Join(" | ", All(css).Select(Safe))}\"",
            () => All(css).Any(e => Safe(e).Contains(text, StringComparison.Ordinal)) ? "" : null
        );

    public void Waits(string what, Func<bool> holds) => Until(what, () => holds() ? "" : null);

    /// <summary>Waits until no check is under way or about to begin: a list of findings then stays as it is.</summary>
    public void WaitsForChecks()
    {
        var (asked, since) = (-1L, Stopwatch.StartNew());
        Waits(
            "the checks to end",
            () =>
            {
                var now = (long)Run("return performance.getEntriesByType('resource').filter(e => e.name.endsWith('/check')).length")!;
                if (now != asked || Text("[data-testid=save-state]") != "Saved automatically")
                    (asked, since) = (now, Stopwatch.StartNew());
                return since.ElapsedMilliseconds > 1000;
            }
        );
    }

    public string Text(string css) => Safe(Find(css));

    /// <summary>What all of them say, read at once: none of them can be drawn anew in between.</summary>
    public IReadOnlyList<string> Texts(string css) =>
        [
            .. (
                (IEnumerable<object>)
                    Run(
                        "return [...document.querySelectorAll(arguments[0])].map(e => e.matches('input, textarea, select') ? e.value : e.innerText)",
                        css
                    )!
            ).Select(t => (string)t),
        ];

    public string Value(string label) => Until(label, () => Labelled(label).GetAttribute("value") ?? "");

    public string Clipboard() =>
        (string)
            _driver.ExecuteAsyncScript("const done = arguments[0]; navigator.clipboard.readText().then(done, e => done('error ' + e))")!;

    public object? Run(string script, params object[] args) => _driver.ExecuteScript(script, args);

    /// <summary>Runs a script that answers through its last argument.</summary>
    public object? RunAsync(string script, params object[] args) => _driver.ExecuteAsyncScript(script, args);

    /// <summary>Gives the window another size, in CSS pixels.</summary>
    public void Resize(int width, int height) =>
        _driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new()
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = false,
            }
        );

    public void Picture(string file) => _driver.GetScreenshot().SaveAsFile(file);

    /// <summary>What the page has complained of since it was opened.</summary>
    public IReadOnlyList<string> Complaints() =>
        [
            .. _driver
                .Manage()
                .Logs.GetLog(LogType.Browser)
                // 409 is answered where two windows changed the same.
                .Where(l => l.Level == LogLevel.Severe && !l.Message.Contains("409"))
                // A failed test shows only the beginning: the status and the path are there.
                .Select(l => Refusal().Replace(l.Message, "$2 $1")),
        ];

    public void Dispose() => _driver.Dispose();

    [GeneratedRegex(@"^https?://[^/]+(\S*) - Failed to load resource: the server responded with a status of (\d+)")]
    private static partial Regex Refusal();

    private static string Safe(IWebElement element)
    {
        try
        {
            return element.Text;
        }
        catch (StaleElementReferenceException)
        {
            return "";
        }
    }

    private static T Until<T>(string what, Func<T?> seen)
        where T : class => Until(() => what, seen);

    private static T Until<T>(Func<string> what, Func<T?> seen)
        where T : class
    {
        var clock = Stopwatch.StartNew();
        while (true)
        {
            try
            {
                if (seen() is { } found)
                    return found;
            }
            catch (Exception e) when (e is StaleElementReferenceException or ElementClickInterceptedException) { }

            if (clock.Elapsed > TimeSpan.FromSeconds(90))
                throw new TimeoutException($"Waited in vain for {what()}.");
            Thread.Sleep(30);
        }
    }

    private static string OnPath(string program) =>
        Environment
            .GetEnvironmentVariable("PATH")!
            .Split(Path.PathSeparator)
            .Select(p => Path.Combine(p, program))
            .FirstOrDefault(File.Exists)
        ?? throw new InvalidOperationException($"{program} is not installed; ./tin test installs it.");
}

/// <summary>Where the project's files lie.</summary>
internal static class Repository
{
    public static string Root { get; } = Find();

    private static string Find()
    {
        var at = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(at!.FullName, "TinRabbit.slnx")))
            at = at.Parent;
        return at.FullName;
    }
}
