using System.Diagnostics;
using System.Net;
using System.Net.Sockets;

namespace TinRabbit.Server.Hosting;

/// <summary>
/// The demo shop beside a seller's own: a program of its own with a data folder of its own, so that sample data and the seller's are never
/// mixed. It ends with this program.
/// </summary>
internal sealed class SampleShop(DataFolder folder, IHostApplicationLifetime lifetime) : IDisposable
{
    private const string Ready = "Tin Rabbit is ready at ";
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(90);
    private readonly SemaphoreSlim _one = new(1, 1);
    private Process? _program;
    private string? _address;

    /// <summary>Starts it where it does not run.</summary>
    /// <returns>Its address.</returns>
    /// <exception cref="InvalidInputException">It did not start.</exception>
    public async Task<string> Open(CancellationToken stop)
    {
        await _one.WaitAsync(stop);
        try
        {
            if (_program is { HasExited: false } && _address is { } known)
                return known;
            _program?.Dispose();
            _program = Process.Start(HowToStart()) ?? throw NotStarted("");
            lifetime.ApplicationStopping.Register(End);
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
            limit.CancelAfter(Patience);
            while (await _program.StandardOutput.ReadLineAsync(limit.Token) is { } line)
                if (line.StartsWith(Ready, StringComparison.Ordinal))
                {
                    // What it says from here on is of no interest, and must not fill the pipe.
                    _ = _program.StandardOutput.BaseStream.CopyToAsync(Stream.Null, CancellationToken.None);
                    _ = _program.StandardError.BaseStream.CopyToAsync(Stream.Null, CancellationToken.None);
                    return _address = line[Ready.Length..].Trim();
                }

            throw NotStarted(await _program.StandardError.ReadToEndAsync(limit.Token));
        }
        finally
        {
            _one.Release();
        }
    }

    public void Dispose()
    {
        End();
        _program?.Dispose();
        _one.Dispose();
    }

    private void End()
    {
        if (_program is { HasExited: false } program)
            program.Kill(entireProcessTree: true);
    }

    private ProcessStartInfo HowToStart()
    {
        var host = Environment.ProcessPath is { } path && Path.GetFileNameWithoutExtension(path) == "dotnet" ? path : "dotnet";
        var start = new ProcessStartInfo(host) { RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (
            var argument in new[]
            {
                Path.Combine(AppContext.BaseDirectory, "TinRabbit.Server.dll"),
                "--demo",
                "true",
                "--port",
                FreePort().ToString(CultureInfo.InvariantCulture),
                "--data",
                Path.Combine(folder.Path, "sample-shop"),
            }
        )
            start.ArgumentList.Add(argument);
        return start;
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static InvalidInputException NotStarted(string why) =>
        new([new("sampleShop", $"The sample shop did not start. {why.Trim()} Start it with ./tin demo instead.")]);
}
