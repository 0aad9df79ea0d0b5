using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using TinRabbit.Server.Demo;

namespace TinRabbit.Server.Hosting;

/// <summary>What the program was started with.</summary>
/// <param name="Port">TCP port, 1–65535.</param>
/// <param name="Data">Folder that holds everything of the shop, as a full path.</param>
/// <param name="Demo">Whether a first start makes the demo shop.</param>
/// <param name="Shop">Another demo shop to make, without anything simulated: <see cref="BinderyShop.Name"/>; null for none.</param>
/// <param name="Listen">The address to listen on; loopback unless the owner says otherwise.</param>
/// <param name="Hosts">Names besides loopback by which browsers reach the server.</param>
/// <param name="Certificate">A PFX file for HTTPS; null for none. Its password is read from TIN_RABBIT_CERTIFICATE_PASSWORD.</param>
/// <param name="Proxy">The reverse proxy that adds HTTPS and is the only one to connect; null for none.</param>
/// <param name="SetPassword">Whether to set the owner's password and stop.</param>
/// <param name="Market">The address of a market source; null for none.</param>
/// <param name="MarketFolder">A folder of files that are a market source; null for none.</param>
/// <param name="ServeMarket">Whether to serve the sample data as a market source, and no shop.</param>
internal sealed record StartOptions(
    int Port,
    string Data,
    bool Demo,
    string? Shop,
    IPAddress Listen,
    IReadOnlyList<string> Hosts,
    string? Certificate,
    IPAddress? Proxy,
    bool SetPassword,
    Uri? Market,
    string? MarketFolder,
    bool ServeMarket
)
{
    private const int LongestData = 2000;

    /// <summary>Whether only browsers on this computer can reach it: it listens on loopback, and no proxy, name or certificate brings others in.</summary>
    public bool OnlyThisComputer => IPAddress.IsLoopback(Listen) && Proxy is null && Hosts.Count == 0 && Certificate is null;

    // What lets others in, as it was given.
    private string WayIn =>
        !IPAddress.IsLoopback(Listen) ? $"--listen {Listen}"
        : Proxy is { } proxy ? $"--proxy {proxy}"
        : Hosts.Count > 0 ? $"--host {Hosts[0]}"
        : $"--certificate {Certificate}";

    /// <summary>Where a browser on this computer opens the program.</summary>
    public string Address =>
        $"{(Certificate is null ? "http" : "https")}://{(Listen.Equals(IPAddress.Any) || Listen.Equals(IPAddress.IPv6Any) ? "127.0.0.1" : Listen.AddressFamily == System.Net.Sockets.AddressFamily.InterNetworkV6 ? $"[{Listen}]" : Listen)}:{Port.ToString(CultureInfo.InvariantCulture)}";

    /// <summary>Reads the options.</summary>
    /// <exception cref="StartProblem">One of them is wrong.</exception>
    public static StartOptions Read(IConfiguration given)
    {
        var data = given["data"] is { Length: > 0 } folder
            ? folder
            : Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData), "tin-rabbit");
        if (data.Length > LongestData || data.Contains(';') || data.Any(char.IsControl))
            throw new StartProblem(
                $"--data takes a folder whose path has no semicolon and no control character, and at most {LongestData} characters."
            );
        var certificate = given["certificate"];
        if (certificate is not null && !File.Exists(certificate))
            throw new StartProblem($"--certificate names {certificate}, but there is no such file.");
        return new(
            ReadPort(given["port"]),
            Path.GetFullPath(data),
            Flag(given, "demo") && ReadShop(given["shop"]) is null,
            ReadShop(given["shop"]),
            ReadAddress(given["listen"], "listen") ?? IPAddress.Loopback,
            [.. (given["host"] ?? "").Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)],
            certificate,
            ReadAddress(given["proxy"], "proxy"),
            Flag(given, "set-password"),
            ReadFolder(given["market"]) is null ? ReadMarket(given["market"]) : null,
            ReadFolder(given["market"]),
            Flag(given, "serve-market")
        );
    }

    private static string? ReadFolder(string? text) => text is not null && Directory.Exists(text) ? Path.GetFullPath(text) : null;

    private static Uri? ReadMarket(string? text) =>
        text is null ? null
        : Uri.TryCreate(text, UriKind.Absolute, out var address)
        && address is { Scheme: "http" or "https", UserInfo: "", Query: "", Fragment: "" }
            ? address
        : throw new StartProblem(
            $"--market takes the address of a market source, for example http://127.0.0.1:5180, or a folder of files, not \"{text}\"."
        );

    /// <summary>Loads the certificate; null where there is none.</summary>
    /// <exception cref="StartProblem">It cannot be read.</exception>
    public X509Certificate2? LoadCertificate()
    {
        try
        {
            return Certificate is null
                ? null
                : X509CertificateLoader.LoadPkcs12FromFile(
                    Certificate,
                    Environment.GetEnvironmentVariable("TIN_RABBIT_CERTIFICATE_PASSWORD")
                );
        }
        catch (CryptographicException e)
        {
            throw new StartProblem($"{Certificate} is not a PFX file, or TIN_RABBIT_CERTIFICATE_PASSWORD is not its password.", e);
        }
    }

    /// <summary>Refuses to let other computers connect unless they must give the owner's password over HTTPS.</summary>
    /// <exception cref="StartProblem">Something is missing for that.</exception>
    public void CheckListening(bool hasPassword)
    {
        if (OnlyThisComputer)
            return;
        if (!hasPassword)
            throw new StartProblem(
                $"{WayIn} lets other computers connect, so the shop needs an owner's password first: set it with ./tin password --data \"{Data}\"."
            );
        if (Certificate is null && Proxy is null)
            throw new StartProblem($"{WayIn} needs HTTPS: give --certificate FILE.pfx, or --proxy ADDRESS if a reverse proxy adds it.");
        if (Hosts.Count == 0 && (Proxy is not null || !IPAddress.IsLoopback(Listen)))
            throw new StartProblem($"{WayIn} needs --host NAME: the name by which browsers reach the shop.");
    }

    private static string? ReadShop(string? name) =>
        name is null or BinderyShop.Name
            ? name
            : throw new StartProblem($"--shop takes {BinderyShop.Name}, the other demo shop, not \"{name}\".");

    private static int ReadPort(string? given) =>
        given is null ? 5170
        : int.TryParse(given, NumberStyles.None, CultureInfo.InvariantCulture, out var port) && port is >= 1 and <= 65535 ? port
        : throw new StartProblem($"--port takes a number from 1 to 65535; \"{given}\" is not one.");

    private static IPAddress? ReadAddress(string? given, string option) =>
        given is null ? null
        : IPAddress.TryParse(given, out var address) ? address
        : throw new StartProblem($"--{option} takes an IP address, such as 192.0.2.10; \"{given}\" is not one.");

    private static bool Flag(IConfiguration given, string option) =>
        given[option] is not { } value ? false
        : bool.TryParse(value, out var flag) ? flag
        : throw new StartProblem($"--{option} takes true or false; \"{value}\" is neither.");
}
