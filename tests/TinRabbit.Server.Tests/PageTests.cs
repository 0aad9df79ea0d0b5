using System.Net;

namespace TinRabbit.Server.Tests;

/// <summary>Which addresses are the page's, and which the API's.</summary>
public class PageTests
{
    [Fact]
    public async Task Every_address_but_the_apis_is_answered_with_the_page()
    {
        var folder = Directory.CreateTempSubdirectory("tin-rabbit-page-").FullName;
        var root = Directory.CreateDirectory(Path.Combine(folder, "wwwroot")).FullName;
        await File.WriteAllTextAsync(Path.Combine(root, "index.html"), "<title>Tin Rabbit</title>");
        try
        {
            using var server = await RunningServer.Start(folder, demo: false, "--webroot", root);
            foreach (var address in new[] { "/", "/1/hedgerow-fair-us/dig", "/help" })
                Assert.Contains("<title>", await server.Client.GetStringAsync(address));
            foreach (var address in new[] { "/api/nothing", "/api/" })
                Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync(address)).StatusCode);
        }
        finally
        {
            Directory.Delete(folder, true);
        }
    }
}
