using System.Net;
using System.Net.Sockets;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Tests;

/// <summary>The program as it is started: what it says when it cannot, and what is left when it is killed.</summary>
public sealed class ProcessTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("tin-rabbit-test-").FullName;

    private string Database => Path.Combine(_folder, "tinrabbit.db");

    public void Dispose() => Directory.Delete(_folder, true);

    [Fact]
    public async Task Killed_at_random_moments_it_starts_again_with_all_that_was_acknowledged()
    {
        var kills = new KillRounds(seed: 5, _folder);
        for (var round = 0; round < 4; round++)
            await kills.Round(round);
        Assert.True(kills.Acknowledged > 20, $"only {kills.Acknowledged} saves were acknowledged");
        Assert.True(kills.KilledWhileStarting > 0);
    }

    [Fact]
    public async Task A_lock_that_an_interrupted_update_left_behind_is_no_obstacle()
    {
        await MakeOlder();
        Execute(
            "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER PRIMARY KEY, Timestamp TEXT NOT NULL)",
            "INSERT OR REPLACE INTO __EFMigrationsLock VALUES (1, '2026-01-01')"
        );
        using var server = await RunningServer.Start(_folder);
        Assert.Equal("An older shop", (await server.Get("/api/shop"))["name"]!.GetValue<string>());
        // It was backed up before it was changed.
        Assert.Single(Directory.GetFiles(Path.Combine(_folder, "backups"), "*-update.db"));
        Assert.Empty(Directory.GetFiles(_folder, "*.new*"));
    }

    [Fact]
    public async Task A_start_with_nothing_to_update_clears_the_lock_too()
    {
        TestShop.CopyTo(_folder, demo: false);
        Execute(
            "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER PRIMARY KEY, Timestamp TEXT NOT NULL)",
            "INSERT OR REPLACE INTO __EFMigrationsLock VALUES (1, '2026-01-01')"
        );
        using (await RunningServer.Start(_folder)) { }

        Assert.Equal(0L, Ask("SELECT COUNT(*) FROM __EFMigrationsLock"));
        Assert.False(
            Directory.Exists(Path.Combine(_folder, "backups"))
                && Directory.GetFiles(Path.Combine(_folder, "backups"), "*-update.db").Length > 0
        );
    }

    [Fact]
    public async Task Of_two_equal_filter_names_that_an_older_program_let_in_the_last_stays()
    {
        await MakeOlder();
        Execute("INSERT INTO Filters(Name, Filters) VALUES ('mine', 'a=1'), ('mine', 'b=2'), ('other', 'source=stand-in+market')");
        using var server = await RunningServer.Start(_folder);
        Assert.Equal(
            "mine b=2, other source=Sample+data",
            string.Join(", ", (await server.Get("/api/filters")).AsArray().Select(f => $"{f!["name"]} {f["filters"]}"))
        );
    }

    [Fact]
    public async Task A_platform_that_an_older_program_let_be_poisoned_is_no_obstacle()
    {
        TestShop.CopyTo(_folder, demo: false);
        var words = string.Join(' ', Enumerable.Repeat("bird house", 10_000));
        Execute(
            $"UPDATE Platforms SET Profile = json_set(Profile, '$.banned', json_array('free shipping', '{words}')) WHERE Id = 'longbarrow'"
        );
        using var server = await RunningServer.Start(_folder);
        var product = await server.Post(
            "/api/products",
            new
            {
                name = "Box",
                facts = (object?)null,
                pictures = (object?)null,
            }
        );
        var listing = product["listings"]!["longbarrow"]!.GetValue<int>();
        await server.Put($"/api/listings/{listing}/copy", new { fields = new { title = "Bird house, free shipping" }, revision = 0 });
        var check = await server.Post($"/api/listings/{listing}/check", new { marketId = "longbarrow-us", fields = (object?)null });
        Assert.Contains("free shipping", check["findings"]!.ToJsonString());
    }

    [Fact]
    public async Task A_demo_that_an_older_program_left_half_made_is_made_again()
    {
        TestShop.CopyTo(_folder, demo: true);
        Execute("UPDATE Listings SET Revision = 0", "DELETE FROM Picks", "UPDATE Terms SET ReadingId = NULL", "DELETE FROM Readings");
        using var server = await RunningServer.Start(_folder, demo: true);
        Assert.NotEmpty((await server.Get("/api/products/1/picks?marketId=longbarrow-us"))["picks"]!.AsArray());
    }

    [Fact]
    public async Task A_second_program_on_the_same_folder_is_refused_and_the_first_goes_on()
    {
        using var first = await RunningServer.Start(_folder);
        Assert.Equal(
            $"Another Tin Rabbit is running on {_folder}. Stop it first, or choose another folder with --data DIR.",
            await Said("--data", _folder, "--port", RunningServer.FreePort().ToString())
        );
        Assert.Equal("My shop", (await first.Get("/api/shop"))["name"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_port_in_use_and_a_folder_that_cannot_be_written_each_get_one_line()
    {
        using var taken = new TcpListener(IPAddress.Loopback, 0);
        taken.Start();
        var port = ((IPEndPoint)taken.LocalEndpoint).Port;
        Assert.Equal($"Port {port} is in use: choose another with --port N.", await Said("--data", _folder, "--port", port.ToString()));
        var file = Path.Combine(_folder, "a-file");
        await File.WriteAllTextAsync(file, "");
        Assert.Equal(
            $"Tin Rabbit cannot write to {file}/data: choose another folder with --data DIR.",
            await Said("--data", $"{file}/data", "--port", port.ToString())
        );
    }

    [Theory]
    [InlineData("--port takes a number from 1 to 65535; \"abc\" is not one.", "--port", "abc")]
    [InlineData("--port takes a number from 1 to 65535; \"99999\" is not one.", "--port", "99999")]
    [InlineData("--port takes a number from 1 to 65535; \"-1\" is not one.", "--port", "-1")]
    [InlineData(
        "--data takes a folder whose path has no semicolon and no control character, and at most 2000 characters.",
        "--data",
        "a;b"
    )]
    [InlineData("--demo takes true or false; \"maybe\" is neither.", "--demo", "maybe")]
    [InlineData("--listen takes an IP address, such as 192.0.2.10; \"everywhere\" is not one.", "--listen", "everywhere")]
    [InlineData(
        "--market takes the address of a market source, for example http://127.0.0.1:5180, or a folder of files, not \"sample\".",
        "--market",
        "sample"
    )]
    [InlineData(
        "The market source at http://127.0.0.1:1/ can’t be reached. Nothing was changed; check that it runs, and try again. Start without --market to use the sample data.",
        "--market",
        "http://127.0.0.1:1"
    )]
    [InlineData("The sample data is served to this computer only: leave out --listen.", "--serve-market", "true", "--listen", "0.0.0.0")]
    public async Task A_wrong_option_gets_one_line(string line, params string[] options) => Assert.Equal(line, await Said(options));

    [Fact]
    public async Task A_database_from_a_newer_version_is_left_alone()
    {
        TestShop.CopyTo(_folder, demo: false);
        Execute("INSERT INTO __EFMigrationsHistory VALUES ('29990101000000_FromTheFuture', '99.0')");
        Assert.Equal(
            $"{Database} was made by a newer version of Tin Rabbit. Start that version, or choose another folder with --data DIR.",
            await Said("--data", _folder)
        );
        Assert.Equal(1L, Ask("SELECT COUNT(*) FROM __EFMigrationsHistory WHERE MigrationId LIKE '2999%'"));
    }

    [Theory]
    [InlineData("torn")]
    [InlineData("text")]
    [InlineData("zeros")]
    public async Task A_damaged_file_is_said_to_be_damaged_and_left_alone(string how)
    {
        TestShop.CopyTo(_folder, demo: false);
        var whole = await File.ReadAllBytesAsync(Database);
        byte[] damaged = how switch
        {
            "torn" => whole[..(whole.Length / 3)],
            "text" => "This is a shopping list. Eggs, milk, bread and a wren box."u8.ToArray(),
            _ => new byte[8192],
        };
        await File.WriteAllBytesAsync(Database, damaged);
        var said = await Said("--data", _folder);
        Assert.Equal(
            $"{Database} is damaged, or is not a Tin Rabbit database. Put a copy from {Path.Combine(_folder, "backups")} in its place, or choose another folder with --data DIR.",
            said
        );
        Assert.Equal(damaged, await File.ReadAllBytesAsync(Database));
    }

    [Fact]
    public async Task The_database_of_another_program_a_folder_and_a_read_only_file_are_each_said()
    {
        Execute("CREATE TABLE Recipes (Id INTEGER PRIMARY KEY)");
        Assert.Equal(
            $"{Database} is not a Tin Rabbit database. Move it away, or choose another folder with --data DIR.",
            await Said("--data", _folder)
        );
        File.SetAttributes(Database, FileAttributes.ReadOnly);
        Assert.Equal(
            $"{Database} is read-only. Make it writable, or choose another folder with --data DIR.",
            await Said("--data", _folder)
        );
        File.SetAttributes(Database, FileAttributes.Normal);
        File.Delete(Database);
        Directory.CreateDirectory(Database);
        Assert.Equal(
            $"{Database} is a folder, but the shop's database belongs there. Move the folder away, or choose another folder with --data DIR.",
            await Said("--data", _folder)
        );
    }

    [Fact]
    public async Task Other_computers_are_let_in_only_with_a_password_and_over_https()
    {
        var port = RunningServer.FreePort().ToString();
        string[] outside = ["--data", _folder, "--port", port, "--listen", "0.0.0.0"];
        Assert.StartsWith(
            "--listen 0.0.0.0 lets other computers connect, so the shop needs an owner's password first",
            await Said(outside)
        );
        using (var process = RunningServer.Launch(_folder, RunningServer.FreePort(), more: ["--set-password", "true"]))
        {
            await process.StandardInput.WriteLineAsync("correct horse battery");
            Assert.Contains("password is set", await process.StandardOutput.ReadToEndAsync());
            await process.WaitForExitAsync();
        }

        Assert.DoesNotContain("horse", await File.ReadAllTextAsync(Path.Combine(_folder, "owner.json")));
        Assert.StartsWith("--listen 0.0.0.0 needs HTTPS", await Said(outside));
        var noCertificate = Path.Combine(_folder, "certificate.pfx");
        await File.WriteAllTextAsync(noCertificate, "no certificate");
        Assert.Equal(
            $"{noCertificate} is not a PFX file, or TIN_RABBIT_CERTIFICATE_PASSWORD is not its password.",
            await Said([.. outside, "--host", "shop.example", "--certificate", noCertificate])
        );
        Assert.StartsWith("--listen 0.0.0.0 needs --host", await Said([.. outside, "--proxy", "127.0.0.1"]));
        using var server = await RunningServer.Start(
            _folder,
            demo: false,
            "--listen",
            "0.0.0.0",
            "--proxy",
            "127.0.0.1",
            "--host",
            "shop.example"
        );
        // The proxy says that the browser came over HTTPS; without that nobody is answered.
        Assert.Equal(HttpStatusCode.Forbidden, (await Ask(server, HttpMethod.Get, "/api/shop", https: false)).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await Ask(server, HttpMethod.Get, "/api/shop")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await Ask(server, HttpMethod.Get, "/openapi/v1.json")).StatusCode);
        Assert.Equal(
            HttpStatusCode.MisdirectedRequest,
            (await Ask(server, HttpMethod.Get, "/api/session", host: "rebound.example")).StatusCode
        );
        Assert.Equal(
            """{"needed":true,"loggedIn":false}""",
            await (await Ask(server, HttpMethod.Get, "/api/session")).Content.ReadAsStringAsync()
        );
        using var login = await Ask(server, HttpMethod.Post, "/api/session", """{"password":"correct horse battery"}""");
        Assert.Equal(HttpStatusCode.NoContent, login.StatusCode);
        var cookie = Assert.Single(login.Headers.GetValues("Set-Cookie"));
        Assert.Contains("secure", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("httponly", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("samesite=strict", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Equal(HttpStatusCode.OK, (await Ask(server, HttpMethod.Get, "/api/shop", cookie: cookie.Split(';')[0])).StatusCode);
        for (var i = 0; i < 5; i++)
            Assert.Equal(
                HttpStatusCode.Unauthorized,
                (await Ask(server, HttpMethod.Post, "/api/session", """{"password":"guess"}""", from: "198.51.100.7")).StatusCode
            );
        Assert.Equal(HttpStatusCode.TooManyRequests, (await LogIn("198.51.100.7")).StatusCode);

        // Who guesses does not keep the owner out, and the owner's other sessions end with a new password and with logging out.
        using var other = await LogIn("198.51.100.8");
        Assert.Equal(HttpStatusCode.NoContent, other.StatusCode);
        var second = CookieOf(other);
        Assert.Equal(HttpStatusCode.OK, (await Ask(server, HttpMethod.Get, "/api/shop", cookie: second)).StatusCode);
        const string Change = "/api/session/password";
        var next = """{"password":"correct horse battery","next":"another horse battery"}""";
        Assert.Equal(HttpStatusCode.Unauthorized, (await Ask(server, HttpMethod.Post, Change, next)).StatusCode);
        var tooShort = """{"password":"correct horse battery","next":"short"}""";
        Assert.Equal(HttpStatusCode.BadRequest, (await Ask(server, HttpMethod.Post, Change, tooShort, cookie: second)).StatusCode);
        using var changed = await Ask(server, HttpMethod.Post, Change, next, cookie: second);
        Assert.Equal(HttpStatusCode.NoContent, changed.StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await Ask(server, HttpMethod.Get, "/api/shop", cookie: CookieOf(login))).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await Ask(server, HttpMethod.Get, "/api/shop", cookie: second)).StatusCode);
        var third = CookieOf(changed);
        Assert.Equal(HttpStatusCode.OK, (await Ask(server, HttpMethod.Get, "/api/shop", cookie: third)).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await Ask(server, HttpMethod.Delete, "/api/session", cookie: third)).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await Ask(server, HttpMethod.Get, "/api/shop", cookie: third)).StatusCode);

        // A torn file is said, and no stack trace.
        await File.WriteAllTextAsync(Path.Combine(_folder, "owner.json"), "{\"Hash\":\"AQ");
        using var torn = await LogIn("198.51.100.8");
        Assert.Equal(HttpStatusCode.ServiceUnavailable, torn.StatusCode);
        Assert.Contains("is damaged. Set the password again", await torn.Content.ReadAsStringAsync());

        Task<HttpResponseMessage> LogIn(string from) =>
            Ask(server, HttpMethod.Post, "/api/session", """{"password":"correct horse battery"}""", from: from);

        static string CookieOf(HttpResponseMessage answer) => answer.Headers.GetValues("Set-Cookie").Last().Split(';')[0];

        static Task<HttpResponseMessage> Ask(
            RunningServer server,
            HttpMethod method,
            string path,
            string? body = null,
            bool https = true,
            string host = "shop.example",
            string? cookie = null,
            string? from = null
        )
        {
            var request = new HttpRequestMessage(method, path) { Headers = { Host = host } };
            if (https)
                request.Headers.Add("X-Forwarded-Proto", "https");
            if (from is not null)
                request.Headers.Add("X-Forwarded-For", from);
            if (cookie is not null)
                request.Headers.Add("Cookie", cookie);
            if (body is not null)
                request.Content = new StringContent(body, System.Text.Encoding.UTF8, "application/json");
            return server.Client.SendAsync(request);
        }
    }

    [Theory]
    [InlineData("--proxy 127.0.0.1", "--host", "shop.test", "--proxy", "127.0.0.1")]
    [InlineData("--host shop.test", "--host", "shop.test")]
    public async Task Also_on_loopback_a_name_or_a_proxy_needs_the_password(string way, params string[] options) =>
        Assert.StartsWith(
            $"{way} lets other computers connect, so the shop needs an owner's password first",
            await Said(["--data", _folder, .. options])
        );

    [Fact]
    public async Task A_request_that_is_too_large_is_refused_in_words()
    {
        using var server = await RunningServer.Start(_folder);
        // A client that waits for leave is told before it has sent anything.
        server.Client.DefaultRequestHeaders.ExpectContinue = true;
        using var response = await server.Client.PostAsync(
            "/api/engine/weigh",
            new StringContent("{\"terms\":\"" + new string('x', 17 << 20) + "\"}", System.Text.Encoding.UTF8, "application/json")
        );
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, response.StatusCode);
        Assert.Contains("larger than 16 MB", await response.Content.ReadAsStringAsync());
        using var upload = new HttpRequestMessage(HttpMethod.Post, "/api/markets/longbarrow-us/imports")
        {
            Content = new StreamContent(new Zeros(600L << 20)),
        };
        upload.Content.Headers.ContentLength = 600L << 20;
        using var refused = await server.Client.SendAsync(upload);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, refused.StatusCode);
        Assert.Contains("larger than 512 MB", await refused.Content.ReadAsStringAsync());
    }

    private static async Task<string> Said(params string[] options)
    {
        var (code, said) = await RunningServer.Fail(options);
        Assert.Equal(1, code);
        Assert.DoesNotContain('\n', said);
        Assert.DoesNotContain("   at ", said);
        return said;
    }

    // A shop as the program before this one left it.
    private async Task MakeOlder()
    {
        await using var db = TinContext.Open(Database);
        await db.GetService<IMigrator>().MigrateAsync("20261125123110_Writing");
        Execute("INSERT INTO Shops(Name) VALUES ('An older shop')");
    }

    private void Execute(params string[] statements)
    {
        foreach (var sql in statements)
            Ask(sql);
    }

    private object? Ask(string sql)
    {
        using var connection = new SqliteConnection($"Data Source={Database};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        return command.ExecuteScalar();
    }

    private sealed class Zeros(long length) : Stream
    {
        private long _left = length;

        public override bool CanRead => true;
        public override bool CanSeek => false;
        public override bool CanWrite => false;
        public override long Length => throw new NotSupportedException();
        public override long Position
        {
            get => throw new NotSupportedException();
            set => throw new NotSupportedException();
        }

        public override int Read(byte[] buffer, int offset, int count)
        {
            var read = (int)Math.Min(count, _left);
            Array.Clear(buffer, offset, read);
            _left -= read;
            return read;
        }

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }
}
