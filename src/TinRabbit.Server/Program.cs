using System.Globalization;
using System.Net.Sockets;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Market;
using TinRabbit.Market.StandIn;
using TinRabbit.Server;
using TinRabbit.Server.Dig;
using TinRabbit.Server.Engine;
using TinRabbit.Server.Pick;
using TinRabbit.Server.Platforms;
using TinRabbit.Server.Shop;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Weigh;
using TinRabbit.Server.Write;

var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
var port = builder.Configuration.GetValue("port", 5170);
var data = builder.Configuration["data"] ?? Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData), "tin-rabbit");
var demo = builder.Configuration.GetValue("demo", false);

// The OpenAPI document is made at build by starting this program without a database.
var describing = System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

builder.WebHost.UseUrls($"http://127.0.0.1:{port.ToString(CultureInfo.InvariantCulture)}");
builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.Services.AddDbContext<TinContext>(o => o.UseSqlite(TinContext.Connection(data), s => s.UseQuerySplittingBehavior(QuerySplittingBehavior.SplitQuery)));
builder.Services.AddSingleton<Commits>();
builder.Services.AddSingleton<ReadyPicksCache>();
builder.Services.AddSingleton<LastWeighings>();
builder.Services.AddSingleton<Shelves>();
builder.Services.AddSingleton(new DataFolder(data));
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton<IMarket>(s => new StandInMarket(20261124, FirstStart.Shipped, s.GetRequiredService<TimeProvider>()));
builder.Services.AddProblemDetails();
builder.Services.AddExceptionHandler<Problems>();
builder.Services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
builder.Services.ConfigureHttpJsonOptions(o =>
{
    o.SerializerOptions.Converters.Add(new JsonStringEnumConverter(System.Text.Json.JsonNamingPolicy.CamelCase, allowIntegerValues: false));
    o.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
    o.SerializerOptions.RespectNullableAnnotations = true;
    o.SerializerOptions.TypeInfoResolver = (o.SerializerOptions.TypeInfoResolver ?? new DefaultJsonTypeInfoResolver()).WithAddedModifier(Needed.Mark);
});
builder.Services.AddOpenApi();

var app = builder.Build();
app.UseExceptionHandler();
app.UseStatusCodePages();
app.MapOpenApi();
app.MapGet("/healthz", async (TinContext db, CancellationToken stop) =>
    await db.Database.CanConnectAsync(stop) ? Results.Text("ok") : Results.Text("The database cannot be opened.", statusCode: 503)).ExcludeFromDescription();
var api = app.MapGroup("").AddEndpointFilter(Needed.NoNulls);
api.MapEngine();
api.MapShop();
api.MapDig();
api.MapShelf();
api.MapImport();
api.MapTerm();
api.MapWords();
api.MapPick();
api.MapWrite();
api.MapFill();
api.MapCheck();
api.MapTakes();
api.MapVersions();
api.MapSend();
api.MapPlatforms();
api.MapWeigh();
app.UseStaticFiles();
app.MapFallback("/api/{**rest}", () => Results.NotFound()).ExcludeFromDescription();
app.MapFallbackToFile("index.html");

if (describing)
{
    app.Run();
    return 0;
}

try
{
    Directory.CreateDirectory(data);
    var probe = Path.Combine(data, ".writable");
    File.WriteAllText(probe, "");
    File.Delete(probe);
}
catch (Exception e) when (e is IOException or UnauthorizedAccessException)
{
    Console.Error.WriteLine($"Tin Rabbit cannot write to {data}: choose another folder with --data DIR.");
    return 1;
}

await using (var scope = app.Services.CreateAsyncScope())
    await FirstStart.Prepare(scope.ServiceProvider.GetRequiredService<TinContext>(), app.Services.GetRequiredService<IMarket>(), app.Services.GetRequiredService<Shelves>(), demo);

try
{
    await app.StartAsync();
}
catch (IOException e) when (e.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException or SocketException)
{
    Console.Error.WriteLine($"Port {port} is in use: choose another with --port N.");
    return 1;
}

// The first key should not wait for the weighing to be compiled, nor the first dig for the stand-in to be made or a large shelf to be read.
_ = Task.Run(async () =>
{
    await using var scope = app.Services.CreateAsyncScope();
    await WarmUp.Weigh(scope.ServiceProvider.GetRequiredService<TinContext>(), app.Services.GetRequiredService<IMarket>().Places[0].Id, app.Urls.First());
    await FirstStart.MakeReady(scope.ServiceProvider.GetRequiredService<TinContext>(), app.Services.GetRequiredService<IMarket>(), app.Services.GetRequiredService<Shelves>());
});
Console.WriteLine($"Tin Rabbit is ready at http://127.0.0.1:{port}");
await app.WaitForShutdownAsync();
return 0;
