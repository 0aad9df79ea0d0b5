using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <summary>Made-up readings name their source as sample data, and so do filters by source.</summary>
    [DbContext(typeof(TinContext))]
    [Migration("20261126091500_SampleData")]
    public partial class SampleData : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("UPDATE Readings SET Source = 'Sample data' WHERE Source = 'stand-in market'");
            migrationBuilder.Sql("UPDATE Filters SET Filters = REPLACE(Filters, 'source=stand-in+market', 'source=Sample+data')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("UPDATE Readings SET Source = 'stand-in market' WHERE Source = 'Sample data'");
            migrationBuilder.Sql("UPDATE Filters SET Filters = REPLACE(Filters, 'source=Sample+data', 'source=stand-in+market')");
        }
    }
}
