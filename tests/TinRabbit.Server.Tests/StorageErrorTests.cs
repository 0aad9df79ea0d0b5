using System.Net;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using TinRabbit.Server.Hosting;

namespace TinRabbit.Server.Tests;

/// <summary>What the database or the disk refuses is said in a plain sentence, and is no bare 500.</summary>
public class StorageErrorTests
{
    [Theory]
    [InlineData(5, 503, "busy")]
    [InlineData(8, 503, "read-only")]
    [InlineData(10, 503, "disk could not be read or written")]
    [InlineData(11, 503, "damaged")]
    [InlineData(13, 507, "disk is full")]
    [InlineData(19, 409, "changed by another request")]
    public async Task Each_error_of_sqlite_is_said(int code, int status, string says)
    {
        foreach (
            var exception in new Exception[]
            {
                new SqliteException("internal words", code),
                new DbUpdateException("internal words", new SqliteException("internal words", code)),
            }
        )
        {
            var context = new DefaultHttpContext
            {
                RequestServices = new ServiceCollection().AddLogging().AddProblemDetails().BuildServiceProvider(),
                Response = { Body = new MemoryStream() },
            };
            Assert.True(await new ProblemAnswers(NullLogger<ProblemAnswers>.Instance).TryHandleAsync(context, exception, default));
            context.Response.Body.Position = 0;
            var text = await new StreamReader(context.Response.Body).ReadToEndAsync();
            Assert.Equal(status, context.Response.StatusCode);
            Assert.Contains(says, JsonNode.Parse(text)!["detail"]!.GetValue<string>());
            Assert.DoesNotContain("internal words", text);
        }
    }

    [Fact]
    public async Task A_database_that_another_program_has_locked_is_busy_and_what_was_saved_stays()
    {
        using var shop = new TestShop();
        var listing = await shop.ListingOf(await shop.AddProduct(), "longbarrow");
        await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = "Saved" }, revision = 0 });
        using (var other = new SqliteConnection($"Data Source={Path.Combine(shop.Folder, "tinrabbit.db")};Pooling=False"))
        {
            other.Open();
            using var command = other.CreateCommand();
            command.CommandText = "BEGIN IMMEDIATE";
            command.ExecuteNonQuery();
            var busy = await shop.Put(
                $"/api/listings/{listing}/copy",
                new { fields = new { title = "Not yet" }, revision = 1 },
                (int)HttpStatusCode.ServiceUnavailable
            );
            Assert.Contains("try again in a moment", busy["detail"]!.GetValue<string>());
            Assert.Equal("Saved", (await shop.Get($"/api/listings/{listing}"))["copy"]!["title"]!.GetValue<string>());
        }

        await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = "Not yet" }, revision = 1 });
    }
}
