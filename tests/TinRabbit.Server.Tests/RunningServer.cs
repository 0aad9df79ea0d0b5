using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>The program as a process of its own, as ./tin start runs it.</summary>
public sealed class RunningServer : IDisposable
{
    private readonly Process _process;

    private RunningServer(Process process, int port)
    {
        _process = process;
        Client = new(new SocketsHttpHandler { Expect100ContinueTimeout = TimeSpan.FromSeconds(20) })
        {
            BaseAddress = new($"http://127.0.0.1:{port}"),
            Timeout = TimeSpan.FromMinutes(5),
        };
    }

    public HttpClient Client { get; }

    public int Id => _process.Id;

    /// <summary>Starts it and waits until it is ready.</summary>
    public static async Task<RunningServer> Start(string folder, bool demo = false, params string[] more)
    {
        var port = FreePort();
        var process = Launch(folder, port, demo, more);
        var errors = process.StandardError.ReadToEndAsync();
        while (await process.StandardOutput.ReadLineAsync() is { } line)
            if (line.StartsWith("Tin Rabbit is ready at ", StringComparison.Ordinal))
                return new(process, port);
        throw new InvalidOperationException($"The server stopped before it was ready: {await errors}");
    }

    /// <summary>Starts it without waiting: it may be killed at any moment of its start.</summary>
    public static Process Launch(string folder, int port, bool demo = false, params string[] more) =>
        Process.Start(
            new ProcessStartInfo(
                "dotnet",
                [
                    Path.Combine(AppContext.BaseDirectory, "TinRabbit.Server.dll"),
                    "--data",
                    folder,
                    "--port",
                    port.ToString(),
                    "--demo",
                    demo ? "true" : "false",
                    .. more,
                ]
            )
            {
                RedirectStandardError = true,
                RedirectStandardOutput = true,
                RedirectStandardInput = true,
            }
        )!;

    /// <summary>Starts it where it cannot start, and gives what it says.</summary>
    public static async Task<(int ExitCode, string Said)> Fail(params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "TinRabbit.Server.dll"), .. arguments])
            {
                RedirectStandardError = true,
                RedirectStandardOutput = true,
                RedirectStandardInput = true,
            }
        )!;
        process.StandardInput.Close();
        var output = process.StandardOutput.ReadToEndAsync();
        var said = await process.StandardError.ReadToEndAsync();
        using var patience = new CancellationTokenSource(TimeSpan.FromMinutes(3));
        try
        {
            await process.WaitForExitAsync(patience.Token);
        }
        catch (OperationCanceledException)
        {
            process.Kill(entireProcessTree: true);
            throw new TimeoutException($"It started: {await output}");
        }

        return (process.ExitCode, said.Trim());
    }

    public static int FreePort()
    {
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        return ((IPEndPoint)free.LocalEndpoint).Port;
    }

    public async Task<JsonNode> Get(string path) => await Read(await Client.GetAsync(path));

    public async Task<JsonNode> Post(string path, object body) => await Read(await Client.PostAsJsonAsync(path, body));

    public async Task<JsonNode> Put(string path, object body) => await Read(await Client.PutAsJsonAsync(path, body));

    /// <summary>Ends it as a power cut does.</summary>
    public void Kill()
    {
        _process.Kill(entireProcessTree: true);
        _process.WaitForExit();
    }

    public void Dispose()
    {
        if (!_process.HasExited)
            Kill();
        _process.Dispose();
        Client.Dispose();
    }

    private static async Task<JsonNode> Read(HttpResponseMessage response)
    {
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(response.IsSuccessStatusCode, text);
        return text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!;
    }
}
