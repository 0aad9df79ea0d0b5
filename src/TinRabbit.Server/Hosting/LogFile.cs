using Serilog;
using Serilog.Extensions.Logging;

namespace TinRabbit.Server.Hosting;

/// <summary>The log in the data folder: what the program did, for a bug report. It names no text of the seller's.</summary>
internal static class LogFile
{
    private const int DaysKept = 7;
    private const long MostBytes = 5 << 20;
    private const string Name = "tin-rabbit-.log";

    /// <summary>Writes the log: the program's own events from Information on, others from Warning on.</summary>
    public static void Add(ILoggingBuilder logging, DataFolder folder)
    {
        logging.AddSerilog(
            new LoggerConfiguration()
                .MinimumLevel.Information()
                .WriteTo.File(
                    Path.Combine(folder.Logs, Name),
                    formatProvider: CultureInfo.InvariantCulture,
                    rollingInterval: RollingInterval.Day,
                    fileSizeLimitBytes: MostBytes,
                    rollOnFileSizeLimit: true,
                    retainedFileCountLimit: DaysKept
                )
                .CreateLogger(),
            dispose: true
        );
        // Of the framework only what goes wrong: its report of a request would name what is searched for.
        logging.AddFilter<SerilogLoggerProvider>(null, LogLevel.Warning);
        logging.AddFilter<SerilogLoggerProvider>("TinRabbit", LogLevel.Information);
    }

    public static void MapLog(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/log", DownloadLog).WithTags("Shop").Produces(200, contentType: "text/plain");

    private static IResult DownloadLog(DataFolder folder) =>
        Results.Stream(stream => Copy(folder, stream), "text/plain; charset=utf-8", "tin-rabbit-log.txt");

    private static async Task Copy(DataFolder folder, Stream to)
    {
        foreach (var file in Directory.GetFiles(folder.Logs, "*.log").Order(StringComparer.Ordinal))
        {
            await using var log = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
            await log.CopyToAsync(to);
        }
    }
}
