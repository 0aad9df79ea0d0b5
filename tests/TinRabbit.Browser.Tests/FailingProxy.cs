using System.Net;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace TinRabbit.Browser.Tests;

/// <summary>What happens to a request on its way.</summary>
public enum Fault
{
    None,

    /// <summary>It does not reach the server, which answers 503.</summary>
    Unavailable,

    /// <summary>It does not reach the server, and the connection breaks.</summary>
    Unreachable,

    /// <summary>It reaches the server and is done; its answer is lost.</summary>
    AnswerLost,

    /// <summary>It waits until <see cref="FailingProxy.Release"/>, and is then passed on.</summary>
    Held,
}

/// <summary>Stands between a browser and the program and fails on purpose: only saves, unless it is told otherwise.</summary>
public sealed class FailingProxy : IAsyncDisposable
{
    private readonly WebApplication _app;
    private readonly HttpClient _server;
    private readonly Lock _lock = new();
    private TaskCompletionSource _released = new();
    private Fault _fault;
    private int _times;

    public FailingProxy(RunningShop shop)
    {
        _server = new() { BaseAddress = new(shop.Address) };
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.ConfigureKestrel(k => k.Listen(IPAddress.Loopback, 0));
        _app = builder.Build();
        _app.Run(Pass);
        _app.StartAsync().GetAwaiter().GetResult();
    }

    public string Address => _app.Urls.First();

    /// <summary>How many saves were held or failed.</summary>
    public int Failed { get; private set; }

    /// <summary>From now on, saves fail in this way; after so many times no longer.</summary>
    public void Fail(Fault fault, int times = int.MaxValue)
    {
        lock (_lock)
            (_fault, _times, Failed, _released) = (fault, times, 0, new());
    }

    /// <summary>Lets go what was held, and fails no more.</summary>
    public void Release()
    {
        lock (_lock)
            (_fault, _) = (Fault.None, _released.TrySetResult());
    }

    public async ValueTask DisposeAsync()
    {
        Release();
        await _app.DisposeAsync();
        _server.Dispose();
    }

    private async Task Pass(HttpContext context)
    {
        var fault = Fault.None;
        Task released;
        lock (_lock)
        {
            released = _released.Task;
            if (_fault != Fault.None && _times > 0 && context.Request.Method == "PUT")
            {
                fault = _fault;
                _times--;
                Failed++;
            }
        }

        if (fault == Fault.Unavailable)
        {
            context.Response.StatusCode = 503;
            return;
        }

        if (fault == Fault.Unreachable)
        {
            context.Abort();
            return;
        }

        if (fault == Fault.Held)
            await released;
        using var request = new HttpRequestMessage(new(context.Request.Method), context.Request.Path + context.Request.QueryString)
        {
            Headers = { Host = context.Request.Host.Value },
        };
        if (context.Request.ContentLength > 0 || context.Request.Headers.TransferEncoding.Count > 0)
        {
            using var body = new MemoryStream();
            await context.Request.Body.CopyToAsync(body);
            request.Content = new ByteArrayContent(body.ToArray());
            request.Content.Headers.TryAddWithoutValidation("Content-Type", context.Request.ContentType);
        }

        foreach (var name in new[] { "Origin", "Sec-Fetch-Site", "Accept" })
            request.Headers.TryAddWithoutValidation(name, (string?)context.Request.Headers[name]);
        using var answer = await _server.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        if (fault == Fault.AnswerLost)
        {
            await answer.Content.ReadAsByteArrayAsync();
            context.Abort();
            return;
        }

        context.Response.StatusCode = (int)answer.StatusCode;
        foreach (var (name, values) in answer.Headers.Concat(answer.Content.Headers))
            if (name is not ("Transfer-Encoding" or "Date"))
                context.Response.Headers[name] = values.ToArray();
        await answer.Content.CopyToAsync(context.Response.Body);
    }
}
