<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rtcm;

/** Numbers of any width out of the bits of a message, most significant first. */
final class BitReader
{
    private int $at = 0;

    public function __construct(private readonly string $bytes)
    {
    }

    public function left(): int
    {
        return 8 * \strlen($this->bytes) - $this->at;
    }

    /** @throws \UnderflowException past the end */
    public function unsigned(int $width): int
    {
        if ($width > $this->left()) {
            throw new \UnderflowException('The message ends here.');
        }
        $value = 0;
        for ($k = 0; $k < $width; ++$k, ++$this->at) {
            $value = ($value << 1) | ((\ord($this->bytes[$this->at >> 3]) >> (7 - ($this->at & 7))) & 1);
        }

        return $value;
    }

    /** Two's complement. */
    public function signed(int $width): int
    {
        $value = $this->unsigned($width);

        return $value >= (1 << ($width - 1)) ? $value - (1 << $width) : $value;
    }

    public function skip(int $width): void
    {
        $this->unsigned($width);
    }

    public function text(int $length): string
    {
        $text = '';
        for ($k = 0; $k < $length; ++$k) {
            $text .= \chr($this->unsigned(8));
        }

        return $text;
    }
}
