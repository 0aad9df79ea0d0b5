using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>The program as it is started: what it says when it cannot, and what is left when it is killed.</summary>
public class ProcessTests
{
    [Fact]
    public async Task What_was_acknowledged_survives_a_kill()
    {
        var folder = Directory.CreateTempSubdirectory("tin-rabbit-test-").FullName;
        var last = "";
        using (var server = Start(folder, out var address))
        {
            await Ready(server);
            using var http = new HttpClient { BaseAddress = new(address) };
            var product = await Read(await http.PostAsJsonAsync("/api/products", new { name = "Box", facts = (object?)null, pictures = (object?)null }));
            var listing = product["listings"]!["longbarrow"]!.GetValue<int>();
            for (var i = 0; i < 20; i++)
            {
                var saved = await http.PutAsJsonAsync($"/api/listings/{listing}/copy", new { fields = new { title = $"take {i}" }, revision = i });
                Assert.True(saved.IsSuccessStatusCode);
                last = $"take {i}";
            }

            server.Kill(entireProcessTree: true);
            await server.WaitForExitAsync();
        }

        using (var server = Start(folder, out var address))
        {
            await Ready(server);
            using var http = new HttpClient { BaseAddress = new(address) };
            var shop = JsonNode.Parse(await http.GetStringAsync("/api/shop"))!;
            var listing = shop["products"]![0]!["listings"]!["longbarrow"]!.GetValue<int>();
            Assert.Equal(last, JsonNode.Parse(await http.GetStringAsync($"/api/listings/{listing}"))!["copy"]!["title"]!.GetValue<string>());
            server.Kill(entireProcessTree: true);
            await server.WaitForExitAsync();
        }

        Directory.Delete(folder, true);
    }

    [Fact]
    public async Task A_port_in_use_and_a_folder_that_cannot_be_written_each_get_one_line()
    {
        var folder = Directory.CreateTempSubdirectory("tin-rabbit-test-").FullName;
        using var taken = new TcpListener(IPAddress.Loopback, 0);
        taken.Start();
        var port = ((IPEndPoint)taken.LocalEndpoint).Port;
        Assert.Equal($"Port {port} is in use: choose another with --port N.", await Said(folder, port));
        var file = Path.Combine(folder, "a-file");
        await File.WriteAllTextAsync(file, "");
        Assert.Equal($"Tin Rabbit cannot write to {file}/data: choose another folder with --data DIR.", await Said($"{file}/data", port));
        Directory.Delete(folder, true);
    }

    private static async Task<string> Said(string folder, int port)
    {
        using var server = Process.Start(Info(folder, port))!;
        var said = await server.StandardError.ReadToEndAsync();
        await server.WaitForExitAsync();
        Assert.Equal(1, server.ExitCode);
        return said.Trim();
    }

    private static Process Start(string folder, out string address)
    {
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        var port = ((IPEndPoint)free.LocalEndpoint).Port;
        free.Stop();
        address = $"http://127.0.0.1:{port}";
        return Process.Start(Info(folder, port))!;
    }

    private static ProcessStartInfo Info(string folder, int port) =>
        new("dotnet", [Path.Combine(AppContext.BaseDirectory, "TinRabbit.Server.dll"), "--data", folder, "--port", port.ToString()])
        {
            RedirectStandardError = true,
            RedirectStandardOutput = true,
        };

    private static async Task Ready(Process server)
    {
        while (await server.StandardOutput.ReadLineAsync() is { } line)
            if (line.StartsWith("Tin Rabbit is ready at http://127.0.0.1:", StringComparison.Ordinal))
                return;
        Assert.Fail("The server stopped before it was ready.");
    }

    private static async Task<JsonNode> Read(HttpResponseMessage response) => JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
}
