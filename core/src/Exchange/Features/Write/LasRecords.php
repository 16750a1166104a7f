<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Las\LasReader;
use Mensura\Exchange\Las\LazFile;
use Mensura\Fault\UnusableInput;

/** A LAS file of a LAS or LAZ file: every record as it is, with intensity, returns, times and colours; headers of packing left out. */
final class LasRecords implements FeatureWriter
{
    private const PACKING = 22204;

    /** @param string $name for messages */
    public function __construct(private readonly string $source, private readonly string $name)
    {
    }

    public function write(FeatureSet $set, string $path): array
    {
        $from = fopen($this->source, 'r') ?: throw new UnusableInput($this->name, 'cannot be read');
        $las = new LasReader($from, $this->name);
        if (!$las->isPacked) {
            copy($this->source, $path);

            return [];
        }
        $head = (string) file_get_contents($this->source, length: 375);
        [$size, $start, $blocks] = array_map(intval(...), array_values((array) unpack('vsize/Vstart/Vblocks', $head, 94)));
        $width = (int) ((array) unpack('v', $head, 105))[1];
        $head = substr($head, 0, $size);
        $kept = '';
        $count = 0;
        $all = (string) file_get_contents($this->source, offset: $size, length: max(0, $start - $size));
        for ($at = 0, $k = 0; $k < $blocks && $at + 54 <= \strlen($all); ++$k) {
            [$id, $length] = array_map(intval(...), array_values((array) unpack('v2', $all, $at + 18)));
            if (self::PACKING !== $id || !str_starts_with(substr($all, $at + 2, 16), 'laszip')) {
                $kept .= substr($all, $at, 54 + $length);
                ++$count;
            }
            $at += 54 + $length;
        }
        $begin = $size + \strlen($kept);
        $head = substr_replace($head, pack('VV', $begin, $count), 96, 8);
        $head[104] = \chr(\ord($head[104]) & 63);
        $unpacked = LazFile::unpacked($this->source, $this->name);
        $records = (int) ((array) unpack('V', (string) file_get_contents($unpacked, offset: 96, length: 4)))[1];
        $further = '';
        if (\ord($head[25]) > 3 && $size >= 375) {
            [$extended, $more] = array_map(intval(...), array_values((array) unpack('Pat/Vcount', $head, 235)));
            $further = $more > 0 ? (string) file_get_contents($this->source, offset: $extended) : '';
            $head = substr_replace($head, pack('P', '' === $further ? 0 : $begin + $las->count * $width), 235, 8);
        }
        $in = fopen($unpacked, 'r') ?: throw new UnusableInput($this->name, 'cannot be unpacked');
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        fwrite($file, $head.$kept);
        stream_copy_to_stream($in, $file, $las->count * $width, $records);
        fwrite($file, $further);
        fclose($file);
        fclose($in);
        fclose($from);

        return [];
    }
}
