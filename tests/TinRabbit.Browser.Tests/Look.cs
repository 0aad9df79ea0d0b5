namespace TinRabbit.Browser.Tests;
public sealed class Look
{
    [Fact(Explicit = true)]
    [Trait("kind", "look")]
    public void Shoot()
    {
        using var shop = new RunningShop(demo: true);
        foreach (var night in new[] { false })
        using (var browser = new Browser(shop, night))
            foreach (var line in File.ReadAllLines("/tmp/look.txt").Where(l => l.Trim().Length > 0))
            {
                var parts = line.Split(' ');
                browser.Go(parts[1]);
                Thread.Sleep(1800);
                foreach (var key in parts.Skip(2)) { browser.Press(key); Thread.Sleep(400); }
                Thread.Sleep(500);
                browser.Picture($"/tmp/look-{parts[0]}.png");
                File.AppendAllText("/tmp/look.log", parts[0] + ": " + string.Join("; ", browser.Complaints()) + "\n");
            }
    }
}
