<?php

declare(strict_types=1);

namespace Mensura\Exchange\Faces;

use Mensura\Exchange\Dxf\DxfGeometry;
use Mensura\Exchange\LandXml\LandXmlSurface;
use Mensura\Exchange\Ply\PlyReader;
use Mensura\Fault\UnusableInput;

/**
 * Faces of a file told by its contents: LandXML surface, DXF, PLY, GeoTIFF of heights. As the file holds them;
 * {@see \Mensura\Mesh\Mesh} joins them.
 */
final readonly class FaceFile
{
    public const TIFF = ["II*\0", "MM\0*", "II+\0", "MM\0+"];

    /**
     * @param list<float>  $x
     * @param list<float>  $y
     * @param list<float>  $z
     * @param list<int>    $triangles corners, three a face
     * @param list<int>    $faceOf    face of the drawing each triangle is a part of; empty where they are the same
     * @param list<string> $layerOf   of each face of the drawing; empty where there are none
     * @param list<string> $warnings  what of the file is not in it, or may be meant otherwise
     * @param list<list<int>> $lines  corners of each line, that are of nothing else
     * @param list<string> $lineLayers  of each line
     * @param list<int>    $points    corners that are points, and of nothing else
     * @param list<string> $pointLayers of each point
     */
    private function __construct(
        public array $x, public array $y, public array $z, public array $triangles, public array $faceOf = [], public array $layerOf = [],
        public array $warnings = [], public array $lines = [], public array $lineLayers = [], public array $points = [],
        public array $pointLayers = [],
    ) {
    }

    /**
     * @param string $name for messages
     *
     * @return ?self null where the file is none of these
     *
     * @throws UnusableInput also where it holds no faces
     */
    public static function read(string $path, string $name): ?self
    {
        $file = self::drawing($path, $name);

        return null === $file || [] !== $file->triangles ? $file?->facesAlone()
            : throw new UnusableInput($name, 'holds no faces: no 3DFACE, polyface, polygon mesh or MESH');
    }

    /**
     * Lines alone, that were read elsewhere.
     *
     * @param list<float>     $x
     * @param list<float>     $y
     * @param list<float>     $z
     * @param list<list<int>> $lines  corners of each
     * @param list<string>    $layers of each
     */
    public static function ofLines(array $x, array $y, array $z, array $lines, array $layers): self
    {
        return new self($x, $y, $z, [], lines: $lines, lineLayers: $layers);
    }

    /** Without lines and points, and their corners: what stands for the shape is the faces. */
    private function facesAlone(): self
    {
        if ([] === $this->lines && [] === $this->points) {
            return $this;
        }
        $drawn = array_fill_keys($this->points, true);
        foreach ($this->lines as $line) {
            $drawn += array_fill_keys($line, true);
        }
        $x = $y = $z = $to = [];
        foreach ($this->x as $i => $e) {
            if (!isset($drawn[$i])) {
                $to[$i] = \count($x);
                $x[] = $e;
                $y[] = $this->y[$i];
                $z[] = $this->z[$i];
            }
        }
        $triangles = array_map(static fn (int $v): int => $to[$v], $this->triangles);

        return new self($x, $y, $z, $triangles, $this->faceOf, $this->layerOf, $this->warnings);
    }

    /**
     * As {@see read()}, of files that may hold lines and points only.
     *
     * @throws UnusableInput where it holds nothing that is drawn
     */
    public static function drawing(string $path, string $name): ?self
    {
        $stream = is_dir($path) ? false : @fopen($path, 'r');
        if (false === $stream) {
            throw new UnusableInput($name, 'cannot be read; is the path right?');
        }
        $head = (string) fread($stream, 4096);
        rewind($stream);
        $text = ltrim($head, "\xEF\xBB\xBF \t\r\n");
        if (str_starts_with($text, '<')) {
            try {
                return new self(...LandXmlSurface::faces($path));
            } catch (UnusableInput $e) {
                throw new UnusableInput($name.substr($e->where, \strlen($path)), $e->reason);
            }
        }
        if (\in_array(substr($head, 0, 4), self::TIFF, true)) {
            return new self(...ElevationGrid::read($path, $name));
        }
        if (1 === preg_match('/^ply\s/', $head)) {
            $ply = PlyReader::read($stream, $name);

            return [] === $ply->triangles
                ? throw new UnusableInput($name, 'is a PLY file without faces')
                : new self($ply->x, $ply->y, $ply->z, $ply->triangles);
        }
        if (str_contains(substr($head, 0, 22), ' Binary DXF')) {
            throw new UnusableInput($name, 'is a binary DXF; write it as ASCII DXF');
        }
        if (1 === preg_match('/^\s*(?:999\s*\R[^\n]*\R\s*)*0\s*\R\s*SECTION\s*\R/', $text)) {
            return self::dxf($stream, $name);
        }

        return null;
    }

    /** @param resource $stream */
    private static function dxf($stream, string $name): self
    {
        try {
            $dxf = DxfGeometry::read($stream);
        } catch (UnusableInput $e) {
            throw new UnusableInput(trim($name.' '.$e->where), $e->reason);
        }
        if ([] === $dxf->triangles && $dxf->solids > 0) {
            $words = 'holds %d solids, whose faces the file does not say in numbers; write them as a mesh or as 3DFACE';
            throw new UnusableInput($name, \sprintf($words, $dxf->solids));
        }
        if ([] === $dxf->triangles && [] === $dxf->lines && [] === $dxf->points) {
            throw new UnusableInput($name, 'holds no faces, lines or points in model space');
        }

        $warnings = [];
        if ($dxf->solids > 0) {
            $warnings[] = \sprintf('%d solids are left out: the file does not say their faces in numbers', $dxf->solids);
        }
        if (null !== $dxf->unit && 1.0 !== $dxf->unit) {
            $warnings[] = \sprintf('its header says a drawing unit of %s m; its coordinates are taken as metres', $dxf->unit);
        }

        return new self(
            $dxf->x, $dxf->y, $dxf->z, $dxf->triangles, $dxf->faceOf, $dxf->layerOf, $warnings, $dxf->lines, $dxf->lineLayers,
            $dxf->points, $dxf->pointLayers,
        );
    }
}
