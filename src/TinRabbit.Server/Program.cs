using System.Net.Sockets;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HttpOverrides;
using TinRabbit.Server.Features.Dig;
using TinRabbit.Server.Features.Watch;
using TinRabbit.Server.Features.Write;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Pictures;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Shelf;

try
{
    var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
    var options = StartOptions.Read(builder.Configuration);

    if (options.ServeMarket)
    {
        if (!options.OnlyThisComputer)
            throw new StartProblem("The sample data is served to this computer only: leave out --listen.");
        await using var source = MarketServer.Build(MarketSource.StandIn(TimeProvider.System), options.Listen, options.Port);
        await Start(source, options, "The market source is ready at");
        return 0;
    }

    // The OpenAPI document is made at build by starting this program without a database.
    var describing = System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";
    var folder = describing ? null : DataFolder.Open(options.Data);
    var market =
        options.Market is { } address && folder is not null && !options.SetPassword
            ? await MarketSource.Connect(address, folder, Console.Error.WriteLine)
        : options.MarketFolder is { } files ? MarketSource.OfFolder(files, TimeProvider.System)
        : null;
    IReadOnlyList<IFeature> features =
    [
        .. typeof(IFeature)
            .Assembly.GetTypes()
            .Where(t => t.IsClass && t.IsAssignableTo(typeof(IFeature)))
            .OrderBy(t => t.Name, StringComparer.Ordinal)
            .Select(t => (IFeature)Activator.CreateInstance(t)!),
    ];
    AddServices(builder, options, folder, market, features);
    var app = builder.Build();
    if (options.SetPassword)
    {
        app.Services.GetRequiredService<OwnerPassword>().Set(Console.In.ReadLine() ?? "");
        Console.WriteLine("The owner's password is set.");
        await app.DisposeAsync();
        return 0;
    }

    MapRequests(app, options, features);
    if (folder is null)
    {
        app.Run();
        return 0;
    }

    options.CheckListening(app.Services.GetRequiredService<OwnerPassword>().IsSet);
    await Start(app, options, "Tin Rabbit is ready at");
    return 0;
}
catch (StartProblem problem)
{
    Console.Error.WriteLine(problem.Message);
    return 1;
}

static void AddServices(
    WebApplicationBuilder builder,
    StartOptions options,
    DataFolder? folder,
    IMarket? market,
    IReadOnlyList<IFeature> features
)
{
    var certificate = options.LoadCertificate();
    builder.WebHost.ConfigureKestrel(kestrel =>
    {
        kestrel.AddServerHeader = false;
        kestrel.Limits.MaxRequestBodySize = Bounds.RequestBytes;
        kestrel.Listen(
            options.Listen,
            options.Port,
            listen =>
            {
                if (certificate is not null)
                    listen.UseHttps(certificate);
            }
        );
    });
    builder.Logging.SetMinimumLevel(LogLevel.Warning);
    // Errors are answered and logged by ProblemAnswers, so the framework's own reports are left out.
    builder.Logging.AddFilter("Microsoft.EntityFrameworkCore", LogLevel.None);
    builder.Logging.AddFilter("Microsoft.AspNetCore.Diagnostics", LogLevel.None);
    builder.Logging.AddFilter("Microsoft.AspNetCore.DataProtection", LogLevel.Error);
    // A failed start prints one line, so the host's stack trace is left out.
    builder.Logging.AddFilter("Microsoft.Extensions.Hosting.Internal.Host", LogLevel.None);
    var services = builder.Services;
    services.AddSingleton(_ => folder ?? throw new InvalidOperationException("There is no data folder while the API is described."));
    var database = folder?.Database ?? "describing.db";
    services.AddDbContext<TinContext>(o =>
        o.UseSqlite(TinContext.Connection(database), s => s.UseQuerySplittingBehavior(QuerySplittingBehavior.SplitQuery))
    );
    services.AddSingleton(options);
    services.AddSingleton<WriteGate>();
    services.AddSingleton<DataVersion>();
    services.AddSingleton<PreparedPicksCache>();
    services.AddSingleton<LookupBudget>();
    services.AddSingleton<UnknownTerms>();
    services.AddSingleton<Shelves>();
    foreach (var feature in features)
        feature.AddServices(services);
    services.AddSingleton<ChangeTimes>();
    services.AddScoped<ChangeLog>();
    services.AddScoped<TableUpload>();
    services.AddScoped<ListingEditor>();
    services.AddSingleton<TopListings>();
    services.AddSingleton<ListingChecker>();
    services.AddSingleton<MarketReviews>();
    services.AddSingleton<PictureFiles>();
    services.AddSingleton(TimeProvider.System);
    services.AddSingleton(s => new OwnerPassword(folder?.Owner ?? "owner.json", s.GetRequiredService<TimeProvider>()));
    services.AddSingleton<RecordingsOfMarkets>();
    services.AddSingleton<IMarket>(s => new RecordedMarket(
        market ?? MarketSource.Own(options.Demo || folder is null, s.GetRequiredService<TimeProvider>()),
        s.GetRequiredService<RecordingsOfMarkets>()
    ));
    services.AddSingleton<MarketSetup>();
    services.AddScoped<TinRabbit.Server.Demo.BinderyShop>();
    services.AddSingleton<SampleShop>();
    services.AddSingleton<BackupService>();
    if (folder is not null)
    {
        LogFile.Add(builder.Logging, folder);
        // In this order, each before the first request.
        services.AddHostedService<ShopSetupService>();
        services.AddHostedService(s => s.GetRequiredService<BackupService>());
        services.AddHostedService<WarmUpService>();
        services.AddHostedService<PendingSends>();
        services.AddHostedService(s => s.GetRequiredService<CheckService>());
        services.AddHostedService(s => s.GetRequiredService<MeasuringService>());
        services.AddHostedService(s => s.GetRequiredService<DailyWatch>());
        if (!options.OnlyThisComputer)
            AddLogin(services, folder);
    }

    services.AddProblemDetails(o => o.CustomizeProblemDetails = ProblemAnswers.Explain);
    services.AddRequestTimeouts(ProblemAnswers.SetTimeouts);
    services.AddExceptionHandler<ProblemAnswers>();
    services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
    services.ConfigureHttpJsonOptions(o =>
    {
        o.SerializerOptions.Converters.Add(
            new JsonStringEnumConverter(System.Text.Json.JsonNamingPolicy.CamelCase, allowIntegerValues: false)
        );
        o.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
        o.SerializerOptions.RespectNullableAnnotations = true;
        o.SerializerOptions.TypeInfoResolver = (
            o.SerializerOptions.TypeInfoResolver ?? new DefaultJsonTypeInfoResolver()
        ).WithAddedModifier(RequestValidation.MarkRequired);
    });
    services.AddOpenApi(o => o.AddSchemaTransformer(RequestValidation.Describe).AddSchemaTransformer(OpenDocuments.Describe));
}

static void AddLogin(IServiceCollection services, DataFolder folder)
{
    services.AddDataProtection().PersistKeysToFileSystem(new(folder.Keys)).SetApplicationName("TinRabbit");
    services
        .AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme)
        .AddCookie(cookie =>
        {
            cookie.Cookie.Name = "tin-rabbit";
            cookie.Cookie.HttpOnly = true;
            cookie.Cookie.SameSite = SameSiteMode.Strict;
            cookie.Cookie.SecurePolicy = CookieSecurePolicy.Always;
            cookie.ExpireTimeSpan = TimeSpan.FromDays(7);
            cookie.Events.OnValidatePrincipal = SessionApi.EndOldSessions;
        });
}

static void MapRequests(WebApplication app, StartOptions options, IReadOnlyList<IFeature> features)
{
    app.UseExceptionHandler();
    if (options.Proxy is { } proxy)
    {
        var forwarded = new ForwardedHeadersOptions
        {
            ForwardedHeaders = ForwardedHeaders.XForwardedProto | ForwardedHeaders.XForwardedFor,
        };
        // Only the one that is named: by itself the framework would trust whatever runs on this computer.
        forwarded.KnownProxies.Clear();
        forwarded.KnownIPNetworks.Clear();
        forwarded.KnownProxies.Add(proxy);
        app.UseForwardedHeaders(forwarded);
    }

    app.UseMiddleware<RequestGuard>();
    app.UseStatusCodePages();
    app.UseRequestTimeouts();
    if (!options.OnlyThisComputer)
    {
        app.UseAuthentication();
        app.Use(SessionApi.RequireOwner);
    }

    app.MapOpenApi();
    app.MapGet(
            "/healthz",
            async (TinContext db, CancellationToken stop) =>
                await db.Database.CanConnectAsync(stop)
                    ? Results.Text("ok")
                    : Results.Text("The database cannot be opened.", statusCode: 503)
        )
        .ExcludeFromDescription();
    var api = app.MapGroup("").AddEndpointFilterFactory(RequestValidation.Filter).NameEndpoints();
    api.MapSession();
    api.MapBackups();
    api.MapLog();
    api.MapSampleShop();
    foreach (var feature in features)
        feature.Map(api);
    // The front end answers every address but those below /api: there a wrong address, method or type is told as what it is.
    app.Use(
        (context, next) =>
        {
            var path = context.Request.Path;
            if (context.GetEndpoint() is null && !path.StartsWithSegments("/api") && !Path.HasExtension(path))
                context.Request.Path = "/index.html";
            return next(context);
        }
    );
    app.UseStaticFiles();
}

static async Task Start(WebApplication app, StartOptions options, string ready)
{
    try
    {
        await app.StartAsync();
    }
    catch (IOException e) when (e.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException or SocketException)
    {
        throw new StartProblem($"Port {options.Port} is in use: choose another with --port N.", e);
    }
    catch (SocketException e)
    {
        throw new StartProblem($"{options.Listen} is not an address of this computer, or port {options.Port} may not be used.", e);
    }

    Console.WriteLine($"{ready} {options.Address}");
    await app.WaitForShutdownAsync();
}
