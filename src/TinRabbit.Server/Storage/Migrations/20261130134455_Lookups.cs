using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Lookups : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "LookupDays",
                columns: table => new
                {
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Asked = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LookupDays", x => x.Day);
                });

            migrationBuilder.CreateTable(
                name: "UnknownTerms",
                columns: table => new
                {
                    MarketId = table.Column<string>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_UnknownTerms", x => new { x.MarketId, x.Key });
                });

            migrationBuilder.CreateIndex(
                name: "IX_Terms_MarketId",
                table: "Terms",
                column: "MarketId",
                filter: "ReadingId IS NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "LookupDays");

            migrationBuilder.DropTable(
                name: "UnknownTerms");

            migrationBuilder.DropIndex(
                name: "IX_Terms_MarketId",
                table: "Terms");
        }
    }
}
